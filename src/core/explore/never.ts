/** What nobody met in a whole search: parts that never came up, words that never showed, conditions with one outcome. */
import { fieldsOf } from '../form/fields';
import type { Exploration } from './exploration';
import type { At, Way } from './finding';
import { containersOf } from '../form/outline';

/** Tries after which a thing that never happened is worth telling. */
const CONDITIONS = 30;
const INFLUENCES = 8;
const IN_VAIN = 2;

export function never(search: Exploration, start: Way): void {
  neverShown(search, start);
  neverShows(search, start);
  neverFilled(search, start);
  neverOffered(search, start);
  oneSided(search, start);
  noDifference(search, start);
}

/** Where an aspect of a part is spoken of. */
function mentioned({ mentions }: Exploration, part: string, aspect: string): At[] {
  return mentions.members.filter(
    (member) => member.part === part && member.aspect === aspect && member.written,
  );
}

/** Somebody says that it is shown, or what it stands in, and it never was. */
function neverShown(search: Exploration, start: Way): void {
  const { onScreen, said, saidShown } = search.covered;
  for (const page of search.ground.form.pages)
    for (const part of [page, ...page.sections, ...page.sections.flatMap(({ fields }) => fields)]) {
      if (onScreen.has(part.name)) continue;
      const gone = containersOf(search.ground.form, part.name).filter(
        (name) => !onScreen.has(name),
      );
      const lines = mentioned(search, part.name, 'shown');
      const isSpokenOf =
        lines.length > 0 ||
        said.has(`${part.name}.shown`) ||
        gone.some((name) => said.has(`${name}.shown`));
      // What it stands in explains it, unless somebody says of itself that it is shown.
      if (!isSpokenOf || (gone.length > 0 && !saidShown.has(part.name))) continue;
      search.report(
        'never-shown',
        'wrong',
        { part: part.name, aspect: 'onScreen' },
        lines,
        `${part.name} was never on screen in ${search.sessions} sessions`,
        start,
      );
    }
}

/** What a handler says, and what people met was always something else. */
function neverShows(search: Exploration, start: Way): void {
  for (const { behaviour, line, part, aspect, met, missed } of search.covered.inVain.values())
    if (met === 0 && missed >= IN_VAIN)
      search.report(
        'never-shows',
        'wrong',
        { part, aspect },
        [{ behaviour, line }],
        `what is said of ${part} ${aspect} here never shows: something else holds it otherwise`,
        start,
      );
}

function neverFilled(search: Exploration, start: Way): void {
  for (const field of fieldsOf(search.ground.form)) {
    const isForScripts = field.locked === true || field.scriptOnly === true;
    if (!isForScripts || field.kind === 'rows' || search.covered.written.has(field.name)) continue;
    const lines = mentioned(search, field.name, 'value');
    if (lines.length > 0)
      search.report(
        'never-filled',
        'may',
        { part: field.name, aspect: 'value' },
        lines,
        `${field.name} never got a value in ${search.sessions} sessions`,
        start,
      );
  }
}

function neverOffered(search: Exploration, start: Way): void {
  for (const { address, field } of search.drivers) {
    const offered = search.covered.offered.get(address);
    if (!('options' in field) || offered === undefined || offered.has('all')) continue;
    for (const { key } of field.options)
      if (!offered.has(key))
        search.report(
          'never-offered',
          'may',
          { part: address, aspect: `option ${key}` },
          mentioned(search, address, 'options'),
          `${address}: the option ${key} was never offered in ${search.sessions} sessions`,
          start,
        );
  }
}

function oneSided(search: Exploration, start: Way): void {
  for (const [name, { count, outcomes }] of search.covered.conditions) {
    if (outcomes.size > 1 || count < CONDITIONS || !search.mentions.conditions.includes(name))
      continue;
    const [behaviour, line, ...text] = name.split(':');
    search.report(
      'one-sided',
      'may',
      { part: `${behaviour}:${line}`, aspect: text.join(':') },
      [{ behaviour: behaviour!, line: Number(line) }],
      `${text.join(':')} was ${[...outcomes][0]} each time, ${count} times`,
      start,
    );
  }
}

function noDifference(search: Exploration, start: Way): void {
  for (const { from, part, behaviour, line, tried, differs } of search.covered.influences.values())
    if (!differs && tried >= INFLUENCES)
      search.report(
        'no-difference',
        'may',
        { part: from, aspect: part },
        [{ behaviour, line }],
        `${part} is computed with ${from}, and no other choice made a difference in ${tried} tries`,
        start,
      );
}
