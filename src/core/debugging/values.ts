/** What each part holds at a moment: its value, who says what of it, and what would become of it on submitting. */
import type { Form } from '../form/definition';
import { fieldsOf, sectionsOf } from '../form/fields';
import { equal, type Value } from '../form/value';
import type { Look } from '../session/looking';
import type { Line } from '../wire/line';

/** Who decides an aspect: the last of those who say something of it. */
export type Decider =
  | { is: 'rule'; behaviour: string; title: string; line: Line }
  | { is: 'handler' }
  | { is: 'definition' };

export interface PartValue {
  part: string;
  label: string;
  sort: string;
  /** As it is kept; undefined for what has no value. */
  value: Value | undefined;
  /** As opened or saved, where that differs. */
  opened: Value | undefined;
  /** What is said of it besides the definition: the aspect, what it is now and would be without scripts. */
  said: { aspect: string; now: Value; base: Value; by: Decider }[];
  /** What would be submitted of a field; undefined for what has no value. */
  sent: Value | undefined;
  /** Why nothing, or something else, would be submitted. */
  left: 'off screen' | 'as the record brought it' | null;
}

export function valuesAt(look: Look, form: Form): PartValue[] {
  const labels = new Map<string, string>([
    ...form.pages.map((page) => [page.name, page.title] as const),
    ...sectionsOf(form).map((section) => [section.name, section.title] as const),
    ...fieldsOf(form).map((field) => [field.name, field.label] as const),
    ...(form.buttons ?? []).map((button) => [button.name, button.label] as const),
    ...(form.tracks ?? []).map((track) => [track.name, track.title] as const),
  ]);
  const without = new Set(look.outgoing.without);
  return Object.entries(look.parts).map(([part, state]): PartValue => {
    const rows = look.rows[part];
    const value =
      rows === undefined ? state.value : rows.order.map((id) => rows.byId[id]!.values as Value);
    const sent = look.outgoing.values[part];
    const said = Object.entries(look.layers[part] ?? {}).map(([aspect, layers]) => {
      const rule = layers.rules.at(-1);
      return {
        aspect,
        base: layers.base,
        now: aspect === 'value' ? (value ?? null) : (rule?.value ?? layers.handler ?? layers.base),
        by: (rule !== undefined
          ? { is: 'rule', behaviour: rule.behaviour, title: rule.title, line: rule.line }
          : layers.handler !== undefined
            ? { is: 'handler' }
            : { is: 'definition' }) as Decider,
      };
    });
    return {
      part,
      label: labels.get(part) ?? part,
      sort: state.sort,
      value,
      opened: Object.hasOwn(look.initial, part) ? look.initial[part] : undefined,
      said,
      sent: value === undefined ? undefined : sent,
      left: without.has(part)
        ? 'off screen'
        : value !== undefined && sent !== undefined && !equal(sent, value)
          ? 'as the record brought it'
          : null,
    };
  });
}
