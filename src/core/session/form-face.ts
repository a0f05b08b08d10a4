/** `form`, as scripts see it: how it was opened, and what can be done with it as a whole. */
import { ScriptFault, words } from './errors';
import type { Stage } from './faces';
import { isSilent } from './face';
import { reads } from './plain';
import type { Runs } from './runs';
import type { State } from './state';

export function formFace(state: State, runs: Runs, stage: Stage, fault: (says: string) => never): object {
  const known: string[] = [];
  const root = state.parts.form;
  const constant = <T>(name: string, get: () => T) => () => {
    if (runs.running === null) throw new ScriptFault('wrong_use', runs.topLevel ? words.topLevel(`form.${name} was read`) : words.outside(`form.${name} was read`));
    return get();
  };
  const target = Object.create(
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name) => (isSilent(name) ? undefined : fault(words.noAspect('form', String(name), known))),
      set: (_, name) => fault(words.noAspect('form', String(name), known)),
    }),
  ) as object;
  const define = (name: string, get: () => unknown) => {
    known.push(name);
    Object.defineProperty(target, name, { enumerable: true, get, set: () => fault(words.readOnly('form', name)) });
  };
  define('isNew', constant('isNew', stage.isNew));
  define('record', constant('record', stage.record));
  define('person', constant('person', () => stage.opening().person));
  define('launch', constant('launch', () => stage.opening().launch));
  define('viewing', constant('viewing', () => stage.opening().viewing === true));
  define('changed', () => runs.read(root.aspect('changed')));
  const clear = () => {
    runs.act('form.clear()');
    for (const part of state.parts.fields) runs.say(part.aspect('value'), stage.defaultOf(part));
  };
  const message = (text: unknown, tone: unknown = 'info') => {
    if (typeof text !== 'string') return fault(words.wrongAspect('form', 'message()', 'a text', text));
    if (tone !== 'info' && tone !== 'warning' && tone !== 'error') {
      return fault(words.wrongAspect('form', 'message()', 'the tone "info", "warning" or "error"', tone));
    }
    if (runs.running?.sort === 'rule') runs.say(root.aspect('message'), { text, tone });
    else runs.message(text, tone);
  };
  const replaceWith = (text: unknown) => runs.say(root.aspect('replaced'), text);
  const submit = () => {
    runs.act('form.submit()');
    if (stage.submitting()) fault(words.submitInSubmit);
    runs.wantSubmit();
  };
  for (const [name, method] of Object.entries({ clear, message, replaceWith, submit })) define(name, () => method);
  reads.set(target, 'form');
  return Object.freeze(target);
}
