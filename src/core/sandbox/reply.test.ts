/** Whatever a worker sends: a reply, or refused. */
import { expect, test } from 'vitest';
import { readReply } from './reply';

test.each([
  { type: 'listens', id: 1, listens: { input: [], focus: [], blur: [] } },
  { type: 'answers', id: 1, answers: [{ refused: null }] },
  { type: 'died', id: 1, how: 'out of memory' },
  { type: 'failed', id: 1, how: 'no request' },
  { type: 'alive' },
  { type: 'at', behaviour: '10-arrival', line: 3 },
])('a reply is read: $type', (reply) => {
  expect(readReply(reply)).toEqual(reply);
});

test.each([
  ['nothing', undefined],
  ['null', null],
  ['a text', 'alive'],
  ['a list', [{ type: 'alive' }]],
  ['of no type', { id: 1 }],
  ['of a type there is not', { type: 'saved', id: 1 }],
  ['of a type that every object has', { type: 'constructor', id: 1 }],
  ['without its number', { type: 'answers', answers: [] }],
  ['whose number is a text', { type: 'answers', id: '1', answers: [] }],
  ['whose answers are none', { type: 'answers', id: 1, answers: [null] }],
  ['whose answers are no list', { type: 'answers', id: 1, answers: { 0: {} } }],
  ['that listens to nothing', { type: 'listens', id: 1, listens: null }],
  ['whose line is a text', { type: 'at', behaviour: 'a', line: '3' }],
])('a message is refused that is %s', (_what, message) => {
  expect(() => readReply(message)).toThrow('no reply');
});
