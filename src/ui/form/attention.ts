/** Keeping people informed of what scripts do to the sheet: announcements for screen readers, and a focus that is never lost. */
import { useEffect, useRef, useState } from 'react';
import type { Form } from '@/core/form/definition';
import { cellsOf } from '@/core/form/fields';
import type { Seen } from '@/core/scenario/seen';

/** Sentences for what scripts showed and hid since the last step, for screen readers. */
export function useAnnouncements(form: Form, seen: Seen): string {
  const before = useRef<Seen | null>(null);
  const [says, setSays] = useState('');
  useEffect(() => {
    const last = before.current;
    before.current = seen;
    if (last === null || last.page !== seen.page) return;
    const labels = labelsOf(form);
    const turned = Object.keys(seen.parts).filter(
      (name) =>
        labels.has(name) &&
        last.parts[name] !== undefined &&
        last.parts[name].shown !== seen.parts[name]!.shown,
    );
    const sentences = turned.map(
      (name) => `${labels.get(name)} is ${seen.parts[name]!.shown ? 'shown' : 'hidden'}.`,
    );
    sentences.push(...cellsTurned(form, last, seen));
    if (sentences.length > 0) setSays(sentences.slice(0, 6).join(' '));
  }, [form, seen]);
  return says;
}

/** Cells that were shown or hidden in rows that stood before as well. */
function cellsTurned(form: Form, last: Seen, seen: Seen): string[] {
  return form.pages
    .flatMap((page) => page.sections.flatMap((section) => section.fields))
    .flatMap((field) => {
      const [before, now] = [last.rows[field.name], seen.rows[field.name]];
      if (before === undefined || now === undefined || before === now) return [];
      return now.order.flatMap((id, place) => {
        const [was, is] = [before.byId[id], now.byId[id]!];
        if (was === undefined || was === is) return [];
        return cellsOf(field).flatMap((cell) => {
          const shown = is.cells[cell.name]?.shown ?? cell.hidden !== true;
          return (was.cells[cell.name]?.shown ?? cell.hidden !== true) === shown
            ? []
            : [`${cell.label} in row ${place + 1} is ${shown ? 'shown' : 'hidden'}.`];
        });
      });
    });
}

function labelsOf(form: Form): Map<string, string> {
  const labels = new Map<string, string>();
  for (const page of form.pages) {
    for (const section of page.sections) {
      labels.set(section.name, section.title);
      for (const field of section.fields) labels.set(field.name, field.label);
    }
  }
  return labels;
}

/** When a script hides what has the focus, the focus goes to the next input of the sheet instead of being lost. */
export function useKeptFocus(root: { current: HTMLDivElement | null }, seen: Seen): void {
  const last = useRef<string | null>(null);
  useEffect(() => {
    const sheet = root.current;
    if (sheet === null) return;
    const remember = (event: FocusEvent) => {
      last.current =
        (event.target as HTMLElement).closest<HTMLElement>('[data-part]')?.dataset.part ?? null;
    };
    const forget = (event: FocusEvent) => {
      if (event.relatedTarget !== null) last.current = null;
    };
    sheet.addEventListener('focusin', remember);
    sheet.addEventListener('focusout', forget);
    return () => {
      sheet.removeEventListener('focusin', remember);
      sheet.removeEventListener('focusout', forget);
    };
  }, [root]);
  useEffect(() => {
    const sheet = root.current;
    const name = last.current;
    if (sheet === null || name === null) return;
    if (document.activeElement !== document.body && document.activeElement !== null) return;
    // It stands there still: the focus was let go of, not lost.
    if (
      sheet.querySelector(
        `[data-part="${CSS.escape(name)}"] :is(input, select, textarea, button)`,
      ) !== null
    )
      return;
    last.current = null;
    nextInput(sheet, seen, name).focus();
  }, [root, seen]);
}

/** The first input after a part that has gone: in its row, its rows field, or further down the sheet; else the sheet itself. */
function nextInput(sheet: HTMLElement, seen: Seen, name: string): HTMLElement {
  const within = (part: string) =>
    sheet.querySelector<HTMLElement>(
      `[data-part="${CSS.escape(part)}"] :is(input, select, textarea):not(:disabled)`,
    );
  const [rows = name, row] = name.split(/[#.]/);
  const here = name.includes('#') ? (within(`${rows}#${row}`) ?? within(rows)) : null;
  if (here !== null) return here;
  const order = Object.keys(seen.parts);
  for (const part of order.slice(order.indexOf(rows) + 1)) {
    const found = within(part);
    if (found !== null) return found;
  }
  return sheet;
}
