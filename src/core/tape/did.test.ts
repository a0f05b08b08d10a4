import { expect, test } from 'vitest';
import { direct } from '../../../tests/support/hosts';
import { formWith, text } from '../../../tests/support/forms';
import { causedInWords, didInWords } from './did';
import { Tape } from './tape';
import { namesFor } from './words';

const form = formWith([text('vessel'), text('note'), text('agent')]);
const names = namesFor(form, [{ name: '10-a.ts', title: 'A' }], []);
const use = () =>
  direct({
    form,
    scripts: {
      '10-a':
        'on.change(fields.vessel, ({ value }) => { fields.note.required = true; if (value === "x") fields.agent.hint = "Who?"; });',
    },
  });

test('what a behaviour did is how often it ran and what it steers', () => {
  const session = use();
  expect(didInWords('10-a', new Tape(session.tape))).toBe('steers nothing yet');
  session.do({ set: 'vessel', to: 'y' });
  expect(didInWords('10-a', new Tape(session.tape))).toBe('steers note · ran once');
  session.do({ set: 'vessel', to: 'x' });
  expect(didInWords('10-a', new Tape(session.tape))).toBe('steers 2 parts · ran 2 times');
  expect(didInWords('20-b', new Tape(session.tape))).toBe('steers nothing yet');
});

test('what a step caused is what scripts changed by it, not what the person did', () => {
  const session = use();
  const told = (to: string) => causedInWords(session.do({ set: 'vessel', to }), names, 'Mira');
  expect(causedInWords(undefined, names, 'Mira')).toBe('The form is being opened.');
  expect(told('y')).toContain('required');
  expect(told('z')).toBe('Scripts changed nothing.');
  expect(told('x')).toContain('Who?');
});
