/** How a form is opened, in words and as lines that people write. */
import { isName } from '../form/name';
import type { Values } from '../form/value';
import type { Open } from './definition';

/** A line of text for each launch parameter, `name=value`; a value that reads as JSON is what it reads as. */
export function launchIn(text: string): { launch: Values } | { says: string } {
  const launch: Values = {};
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const at = line.indexOf('=');
    const name = line.slice(0, at).trim();
    if (at < 0 || !isName(name))
      return { says: `Line ${i + 1} is not name=value with a technical name.` };
    const value = line.slice(at + 1).trim();
    try {
      launch[name] = JSON.parse(value) as never;
    } catch {
      launch[name] = value;
    }
  }
  return { launch };
}

export function launchText(launch: Values): string {
  return Object.entries(launch)
    .map(([name, value]) => `${name}=${typeof value === 'string' ? value : JSON.stringify(value)}`)
    .join('\n');
}

/** What of an opening is out of the ordinary, in a few words; nothing when all is as usual. */
export function openedHow(open: Open): string {
  const words = [
    open.viewing === true && 'viewing only',
    open.zone !== undefined && open.zone,
    open.parent !== undefined && `from ${open.parent.form} ${open.parent.record}`,
    Object.keys(open.launch ?? {}).length > 0 && `launch ${Object.keys(open.launch!).join(', ')}`,
    Object.keys(open.services ?? {}).length > 0 && 'services changed',
  ];
  return words.filter(Boolean).join(' · ');
}
