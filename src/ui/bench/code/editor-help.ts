/** What the language worker knows, at the cursor and under the pointer: completions, explanations, signatures, lights. */
import { autocompletion, type CompletionContext } from '@codemirror/autocomplete';
import { StateEffect, StateField, type Extension, type Range } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  hoverTooltip,
  keymap,
  showTooltip,
  type DecorationSet,
  type Tooltip,
} from '@codemirror/view';
import type { Explanation, Signature } from '@/core/language/answers';
import type { Bench } from '../create-bench';

/** What is shown of a part besides its declaration, and what can be done with a name. */
export interface HelpProps {
  bench: Bench;
  name: string;
  text: () => string;
  /** The raw value a field has now, as a script would read it; null for parts without one. */
  valueNow: (part: string) => string | null;
  onDefine: (position: number) => void;
  onUses: (position: number) => void;
  onRename: (position: number) => void;
}

/** A part spelled out in a source: `fields.berth`, `row.fields.weight`, `fields.cargo.each.weight`. */
const SPELLED =
  /(?<![\w$])(fields|sections|pages|buttons|tracks)\.([a-z]\w*)(?:\.each\.([a-z]\w*))?/g;

const KINDS: Readonly<Record<string, string>> = {
  method: 'function',
  function: 'function',
  getter: 'property',
  property: 'property',
  string: 'text',
  keyword: 'keyword',
};

/** What is written most often stands first, before the alphabet. */
const ASPECTS = [
  'value',
  'shown',
  'required',
  'locked',
  'options',
  'hint',
  'warning',
  'problem',
  'row',
];

export function helpFor(props: HelpProps): Extension {
  return [completionsFor(props), hoverFor(props), signatureFor(props), lightFor(props)];
}

function completionsFor({ bench, name, text }: HelpProps): Extension {
  const source = async (context: CompletionContext) => {
    const word = context.matchBefore(/[\w$]*/);
    const before = context.state.sliceDoc(Math.max(0, context.pos - 1), context.pos);
    if (!context.explicit && (word === null || word.from === word.to) && !/[."']/.test(before))
      return null;
    const found = await bench.core.languageWorker().complete({ name, text: text() }, context.pos);
    if (found.length === 0) return null;
    return {
      from: word?.from ?? context.pos,
      options: found.map(({ label, kind, detail }) => ({
        label,
        type: KINDS[kind] ?? 'variable',
        boost:
          kind === 'getter' || kind === 'property'
            ? (ASPECTS.length - 1 - ASPECTS.indexOf(label)) * Number(ASPECTS.includes(label))
            : 0,
        ...(detail === null ? {} : { detail }),
        info: async () => {
          const described = await bench.core.languageWorker().describe(name, context.pos, label);
          if (described === null || described === label) return null;
          const dom = document.createElement('div');
          dom.textContent = described;
          return dom;
        },
      })),
      validFor: /^[\w$]*$/,
    };
  };
  return autocompletion({ override: [source], icons: false });
}

function hoverFor(props: HelpProps): Extension {
  return hoverTooltip(async (_view, position) => {
    const found = await props.bench.core.languageWorker().explain(props.name, position);
    if (found === null) return null;
    return {
      pos: found.from,
      end: found.to,
      above: true,
      create: () => ({ dom: explained(found, position, props) }),
    };
  });
}

function explained(
  found: Explanation,
  position: number,
  { bench, valueNow, onDefine, onUses, onRename }: HelpProps,
): HTMLElement {
  const dom = document.createElement('div');
  const text = dom.appendChild(document.createElement('div'));
  text.className = 'tv-explain';
  text.textContent =
    found.documentation === '' ? found.signature : `${found.signature}\n\n${found.documentation}`;
  const now = found.part === null ? null : valueNow(found.part);
  if (now !== null) {
    const line = text.appendChild(document.createElement('div'));
    line.className = 'tv-now';
    line.textContent = `now ${now}`;
  }
  if (!found.leads) return dom;
  const acts = dom.appendChild(document.createElement('div'));
  acts.className = 'tv-acts';
  const act = (label: string, run: () => void) => {
    const button = acts.appendChild(document.createElement('button'));
    button.type = 'button';
    button.textContent = label;
    button.addEventListener('click', run);
  };
  const { part } = found;
  if (part !== null && !part.includes('.')) act('Why', () => bench.tape.ask(part));
  act('Go to', () => onDefine(position));
  act('Uses', () => onUses(position));
  act('Rename', () => onRename(position));
  return dom;
}

const setSignature = StateEffect.define<{ at: number; signature: Signature } | null>();

const signatureField = StateField.define<Tooltip | null>({
  create: () => null,
  update(value, transaction) {
    const set = transaction.effects.find((effect) => effect.is(setSignature));
    if (set !== undefined) {
      const shown = set.value as { at: number; signature: Signature } | null;
      return shown === null
        ? null
        : { pos: shown.at, above: true, create: () => ({ dom: signed(shown.signature) }) };
    }
    return value !== null && transaction.docChanged
      ? { ...value, pos: transaction.changes.mapPos(value.pos) }
      : value;
  },
  provide: (field) => showTooltip.from(field),
});

function signed({ text, active, documentation }: Signature): HTMLElement {
  const dom = document.createElement('div');
  dom.className = 'tv-explain tv-signature';
  if (active === null) dom.append(text);
  else {
    const strong = document.createElement('b');
    strong.textContent = text.slice(active.from, active.to);
    dom.append(text.slice(0, active.from), strong, text.slice(active.to));
  }
  if (documentation !== '') dom.append(`\n\n${documentation}`);
  return dom;
}

/** Shows the call being written, from its parenthesis on until it is left. */
function signatureFor({ bench, name, text }: HelpProps): Extension {
  let asked = 0;
  const ask = async (view: EditorView) => {
    const mine = ++asked;
    const position = view.state.selection.main.head;
    const signature = await bench.core.languageWorker().signature({ name, text: text() }, position);
    if (mine === asked && view.dom.isConnected)
      view.dispatch({
        effects: setSignature.of(signature === null ? null : { at: position, signature }),
      });
  };
  return [
    signatureField,
    EditorView.updateListener.of((update) => {
      const open = update.state.field(signatureField) !== null;
      let typed = false;
      if (update.docChanged)
        update.changes.iterChanges(
          (_a, _b, _c, _d, inserted) => (typed ||= /[(,]/.test(inserted.toString())),
        );
      if (typed || (open && (update.docChanged || update.selectionSet))) void ask(update.view);
    }),
    keymap.of([
      { key: 'Mod-Shift-Space', run: (view) => (void ask(view), true) },
      {
        key: 'Escape',
        run: (view) => {
          if (view.state.field(signatureField) === null) return false;
          asked++;
          view.dispatch({ effects: setSignature.of(null) });
          return true;
        },
      },
    ]),
  ];
}

const setLit = StateEffect.define<string | null>();

const litField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    const set = transaction.effects.find((effect) => effect.is(setLit));
    if (set === undefined) return transaction.docChanged ? value.map(transaction.changes) : value;
    return set.value === null
      ? Decoration.none
      : Decoration.set(spotsOf(transaction.state.doc.toString(), set.value as string));
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** Where a source spells a part out. */
function spotsOf(text: string, part: string): Range<Decoration>[] {
  const [owner, cell] = part.split('.');
  const found = [...text.matchAll(SPELLED)].filter(([, , name, column]) =>
    cell === undefined ? name === owner : name === owner && column === cell,
  );
  const cells =
    cell === undefined ? [] : [...text.matchAll(new RegExp(`\\.fields\\.${cell}\\b`, 'g'))];
  return [...found, ...cells]
    .toSorted((a, b) => a.index - b.index)
    .map((match) =>
      Decoration.mark({ class: 'tv-lit' }).range(match.index, match.index + match[0].length),
    );
}

/** The part under the pointer lights up in the live form, and the one pointed at there lights up here. */
function lightFor({ bench }: HelpProps): Extension {
  return [
    litField,
    EditorView.domEventHandlers({
      mousemove(event, view) {
        const position = view.posAtCoords({ x: event.clientX, y: event.clientY });
        bench.screen.shine(position === null ? null : partAt(view, position), 'code');
      },
      mouseleave: () => bench.screen.shine(null, 'code'),
    }),
  ];
}

function partAt(view: EditorView, position: number): string | null {
  const line = view.state.doc.lineAt(position);
  for (const match of line.text.matchAll(SPELLED)) {
    const from = line.from + match.index;
    if (position >= from && position <= from + match[0].length)
      return match[3] === undefined ? match[2]! : `${match[2]}.${match[3]}`;
  }
  return null;
}

export function lightUp(view: EditorView, part: string | null): void {
  view.dispatch({ effects: setLit.of(part) });
}
