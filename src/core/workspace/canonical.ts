/** The one form in which the files of a workspace stand, so that a change of one thing is a difference of its lines. */
import { readWorkspace, type Files } from './workspace';
import { writeWorkspace } from './write';

/** Lines that end as everywhere else, and the last one too. */
export function canonicalText(text: string): string {
  const lines = text.replace(/\r\n?/g, '\n');
  return lines === '' || lines.endsWith('\n') ? lines : `${lines}\n`;
}

/** The files that do not stand in their canonical form, each as it should. Throws BrokenWorkspace. */
export function uncanonical(files: Files): Map<string, string> {
  const wanted = new Map<string, string>();
  for (const [path, text] of writeWorkspace(readWorkspace(files))) {
    const canonical = path.endsWith('.ts') || path.endsWith('.js') ? canonicalText(text) : text;
    if (canonical !== withSchema(files.get(path)!, canonical)) wanted.set(path, canonical);
  }
  return wanted;
}

/** Where a file names its JSON Schema for editors, so does the canonical one; what it names is its own affair. */
function withSchema(text: string, canonical: string): string {
  const named = /^\{\n {2}"\$schema": "[^"\n]*",\n/.exec(text);
  return named === null
    ? text
    : `{\n${text.slice(named[0].length)}` === canonical
      ? canonical
      : text;
}
