/**
 * A page with an HTML form (https://html.spec.whatwg.org/multipage/forms.html) as a form's structure: controls with their
 * labels, options and constraints as the standard means them. What a form here cannot have is left out and listed.
 */
import { parse, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { Field, Section } from '../form/definition';
import { isDate, isTime } from '../form/formats';
import {
  fieldFrom,
  formOf,
  labelFrom,
  Names,
  NothingToTake,
  shortened,
  type Drafted,
  type TakenForm,
} from './taken';

type Element = Tree.Element;

/** Fields that are taken: a form of more is none for people. */
const FIELDS_TAKEN = 2000;

/** Elements looked at; a page of more is no form for people. */
const ELEMENTS = 100_000;

/** Throws NothingToTake, in words, for a page without a form. */
export function fromHtml(text: string, called: string): TakenForm {
  const elements = elementsIn(parse(text));
  const forms = elements
    .filter(({ tagName }) => tagName === 'form')
    .map((form) => ({ form, controls: elementsIn(form).filter(isControl).length }));
  const form = forms.toSorted((a, b) => b.controls - a.controls)[0]?.form ?? elements[0];
  if (form === undefined || !elementsIn(form).some(isControl))
    throw new NothingToTake('The page has no form with something to fill in.');
  return new Reading(elements, form, forms.length).take(called);
}

function elementsIn(root: Tree.Node): Element[] {
  const found: Element[] = [];
  const left: Tree.Node[] = [root];
  for (let node = left.pop(); node !== undefined && found.length < ELEMENTS; node = left.pop()) {
    if ('tagName' in node && node !== root) found.push(node);
    // What stands in a template takes no part in the page.
    if ('childNodes' in node) left.push(...node.childNodes.toReversed());
  }
  return found;
}

const attribute = ({ attrs }: Element, name: string): string | undefined =>
  attrs.find((one) => one.name === name)?.value;
const has = (element: Element, name: string) => attribute(element, name) !== undefined;

const isControl = ({ tagName }: Element) => ['input', 'select', 'textarea'].includes(tagName);

/** Nodes that are read for the texts of one page, which labels within labels would have read again and again. */
const NODES_READ = 3_000_000;
/** Ids of a list that are looked up. */
const IDS_READ = 20;

/** The texts within a node, in their order. Not a function that calls itself: pages nest as deep as they like. */
function textOf(
  node: Tree.Node,
  without: (element: Element) => boolean = () => false,
  nodes = { left: NODES_READ },
): string {
  const texts: string[] = [];
  const left: Tree.Node[] = [node];
  for (let at = left.pop(); at !== undefined; at = left.pop()) {
    if (--nodes.left < 0) break;
    if ('value' in at && at.nodeName === '#text') texts.push((at as Tree.TextNode).value);
    else if ('childNodes' in at && !('tagName' in at && without(at)))
      left.push(...at.childNodes.toReversed());
  }
  return texts.join(' ');
}

/** A text that is read, without the marks that say that something is required. */
const asLabel = (text: string) =>
  shortened(text)
    .replace(/\s*[*:]+\s*$/, '')
    .trim();

class Reading {
  readonly #names = new Names();
  readonly #notes: string[] = [];
  readonly #rules: string[] = [];
  // What is asked of many elements is found once, so that a page takes time as it is long.
  readonly #byId = new Map<string, Element>();
  readonly #labels = new Map<string, Element[]>();
  readonly #groups = new Map<string, Element[]>();
  readonly #controls: ReadonlyMap<Element, Controls>;
  readonly #nodes = { left: NODES_READ };
  readonly #texts = new Once((node: Tree.Node) => textOf(node, () => false, this.#nodes));
  readonly #labelText = new Once((node: Tree.Node) =>
    textOf(node, (one) => isControl(one) || one.tagName === 'button', this.#nodes),
  );
  readonly #legends = new Once((fieldset: Element) => childOf(fieldset, 'legend'));
  readonly #fieldsets = new Nearest(({ tagName }) => tagName === 'fieldset');
  readonly #titled = new Nearest(
    (one) =>
      one.tagName === 'fieldset' &&
      !this.#isGroup(one) &&
      asLabel(this.#texts.of(this.#legends.of(one) ?? this.#none)) !== '',
  );
  readonly #labelled = new Nearest(({ tagName }) => tagName === 'label');
  readonly #roles = new Nearest((one) =>
    ['group', 'radiogroup'].includes(attribute(one, 'role') ?? ''),
  );

  constructor(
    private readonly elements: readonly Element[],
    private readonly form: Element,
    forms: number,
  ) {
    this.#controls = controlsWithin(elements);
    if (forms > 1) this.#notes.push(`the page has ${forms} forms, of which the largest is taken`);
    for (const element of elements) {
      const id = attribute(element, 'id');
      if (id !== undefined && !this.#byId.has(id)) this.#byId.set(id, element);
      if (element.tagName === 'label') addTo(this.#labels, attribute(element, 'for'), element);
      if (element.tagName === 'input') {
        const type = (attribute(element, 'type') ?? '').toLowerCase();
        addTo(this.#groups, groupKey(attribute(element, 'name') ?? '', type), element);
      }
    }
  }

  /** The texts of those elements that a list of ids names. */
  #textOfIds(ids: string): string {
    return ids
      .split(/\s+/, IDS_READ)
      .map((id) => this.#texts.of(this.#byId.get(id) ?? this.#none))
      .join(' ');
  }

  take(called: string): TakenForm {
    const title = this.#title() || called;
    const sections: Section[] = [];
    const radios = new Set<string>();
    const boxes = new Set<string>();
    const id = attribute(this.form, 'id');
    // A control belongs to the form that it stands in, or that it names.
    const own = new Set(elementsIn(this.form));
    let fields = 0;
    for (const element of this.elements) {
      if (fields === FIELDS_TAKEN) {
        this.#notes.push(`only the first ${FIELDS_TAKEN} fields are taken`);
        break;
      }
      const named = attribute(element, 'form');
      if (!(named === undefined ? own.has(element) : id !== undefined && named === id)) continue;
      if (element.tagName === 'button') this.#button(element, 'submit');
      if (!isControl(element)) continue;
      const drafted = this.#control(element, radios, boxes);
      if (drafted === null) continue;
      const section = this.#sectionFor(element, sections, title);
      const name = attribute(element, 'name') ?? attribute(element, 'id') ?? drafted.label;
      fields++;
      section.fields.push(
        fieldFrom<Field>({
          name: this.#names.next(name.replace(/\[\]$/, ''), 'field'),
          ...drafted,
        }),
      );
    }
    for (const field of sections.flatMap(({ fields }) => fields))
      if (field.kind === 'yes_no' && field.required === true)
        this.#mustBeYes(field.name, field.label);
    return {
      form: formOf(title, sections),
      behaviours:
        this.#rules.length === 0
          ? []
          : [
              {
                name: '10-ticked.ts',
                text: `/** Ticked: what has to be ticked before the form can go out. */\n\n${this.#rules.join('\n')}`,
              },
            ],
      notes: this.#notes,
    };
  }

  #note(element: Element, says: string): void {
    const name = attribute(element, 'name') ?? attribute(element, 'id') ?? `<${element.tagName}>`;
    const note = `${name}: ${says}`;
    if (!this.#notes.includes(note) && this.#notes.length < 200) this.#notes.push(note);
  }

  #title(): string {
    const heading = (tag: string, within: Tree.Node) =>
      asLabel(textOf(elementsIn(within).find(({ tagName }) => tagName === tag) ?? this.#none));
    return (
      asLabel(attribute(this.form, 'aria-label') ?? '') ||
      heading('h1', this.form) ||
      heading('h2', this.form) ||
      asLabel(textOf(this.elements.find(({ tagName }) => tagName === 'h1') ?? this.#none)) ||
      asLabel(textOf(this.elements.find(({ tagName }) => tagName === 'title') ?? this.#none))
    );
  }

  readonly #none = parse('').childNodes[0]!;

  /** The section of the nearest fieldset with a legend; controls outside of all stand in one of their own. */
  #sectionFor(element: Element, sections: Section[], title: string): Section {
    const fieldset = this.#titled.above(element);
    const called =
      fieldset === null
        ? title
        : asLabel(this.#texts.of(this.#legends.of(fieldset) ?? this.#none)) || title;
    // Controls that come after a fieldset stand behind it, in a section of the same title.
    const last = sections.at(-1);
    if (last !== undefined && last.title === (called.slice(0, 400) || 'Form')) return last;
    const section = {
      name: this.#names.next(`${called}_part`, 'section'),
      title: called.slice(0, 400) || 'Form',
      fields: [],
    };
    sections.push(section);
    return section;
  }

  #labelFor(element: Element): string {
    const by = attribute(element, 'aria-labelledby');
    const id = attribute(element, 'id');
    const candidates = [
      by === undefined ? '' : this.#textOfIds(by),
      attribute(element, 'aria-label') ?? '',
      ...(id === undefined ? [] : (this.#labels.get(id) ?? []).slice(0, IDS_READ)).map((one) =>
        this.#labelText.of(one),
      ),
      this.#labelText.of(this.#labelled.above(element) ?? this.#none),
      attribute(element, 'title') ?? '',
      attribute(element, 'placeholder') ?? '',
      labelFrom(
        (attribute(element, 'name') ?? attribute(element, 'id') ?? '').replace(/\[\]$/, ''),
      ),
    ];
    return candidates.map(asLabel).find((text) => text !== '') ?? 'Field';
  }

  #button(element: Element, standard: string): void {
    const type = (attribute(element, 'type') ?? standard).toLowerCase();
    const says = asLabel(textOf(element)) || attribute(element, 'value') || type;
    if (type !== 'submit')
      this.#note(
        element,
        `the button “${says}” is left out: a form's buttons do what a behaviour says`,
      );
  }

  #control(element: Element, radios: Set<string>, boxes: Set<string>): Drafted | null {
    const common = {
      label: this.#labelFor(element),
      ...(has(element, 'required') ? { required: true } : {}),
      ...(has(element, 'readonly') || has(element, 'disabled') ? { locked: true } : {}),
      ...this.#hintOf(element),
    };
    if (element.tagName === 'textarea')
      return {
        ...common,
        kind: 'text',
        lines: Math.min(40, Math.max(2, Number(attribute(element, 'rows')) || 2)),
        ...this.#lengths(element),
        ...presetText(textOf(element).trim()),
      };
    if (element.tagName === 'select') return this.#select(element, common);
    const type = (attribute(element, 'type') ?? 'text').toLowerCase();
    switch (type) {
      case 'hidden':
        this.#note(element, 'is a hidden input, and is left out');
        return null;
      case 'submit':
      case 'image':
        return null;
      case 'button':
      case 'reset':
        this.#button(element, type);
        return null;
      case 'checkbox':
        return this.#checkbox(element, common, boxes);
      case 'radio':
        return this.#radio(element, common, radios);
      case 'number':
      case 'range':
        return this.#number(element, common, type);
      case 'date':
        return fieldFrom({
          ...common,
          kind: 'date',
          ...this.#bounds(element, isDate),
          default: fitting(attribute(element, 'value'), isDate),
          ...this.#stepNoted(element, '1'),
        });
      case 'time':
        return this.#time(element, common);
      case 'datetime-local':
        this.#note(
          element,
          'a date and time is kept with its zone, so its earliest and latest are left out',
        );
        return { ...common, kind: 'datetime' };
      case 'file':
        return this.#file(element, common);
      case 'color':
      case 'month':
      case 'week':
      case 'password':
        this.#note(element, `type "${type}" is taken as a text`);
        return { ...common, kind: 'text', ...this.#lengths(element) };
      default:
        return this.#text(element, common, type);
    }
  }

  #hintOf(element: Element): { hint?: string } {
    const by = attribute(element, 'aria-describedby');
    const hint = shortened(by === undefined ? '' : this.#textOfIds(by));
    return hint === '' ? {} : { hint };
  }

  #text(element: Element, common: { label: string }, type: string): Drafted {
    const format = ({ email: 'email', url: 'url', tel: undefined } as const)[type as 'email'];
    if (type === 'email' && has(element, 'multiple'))
      this.#note(element, 'several addresses are taken as one');
    if (has(element, 'list')) this.#note(element, 'the suggestions of its list are left out');
    const source = attribute(element, 'pattern');
    const title = attribute(element, 'title');
    return fieldFrom({
      ...common,
      kind: 'text',
      format,
      ...this.#lengths(element),
      pattern: source === undefined ? undefined : this.#pattern(element, source),
      patternHelp: source !== undefined && title !== undefined && title !== '' ? title : undefined,
      ...presetText(attribute(element, 'value')),
    });
  }

  /** "Compiled pattern regular expression": of the `v` mode, and anchored at both ends. One that does not compile is ignored. */
  #pattern(element: Element, source: string): string | undefined {
    try {
      new RegExp(source, 'v');
      new RegExp(`^(?:${source})$`, 'v');
      new RegExp(`^(?:${source})$`, 'u');
      return source;
    } catch {
      this.#note(element, `the pattern ${source.slice(0, 80)} is none that a form can use`);
      return undefined;
    }
  }

  /** "Rules for parsing non-negative integers"; what they refuse is no limit. */
  #lengths(element: Element): { minLength?: number; maxLength?: number } {
    const parsed = (name: string) => {
      const text = /^\s*\+?(\d+)/.exec(attribute(element, name) ?? '')?.[1];
      return text === undefined ? undefined : Number(text);
    };
    const [minLength, maxLength] = [parsed('minlength'), parsed('maxlength')];
    return {
      ...(minLength === undefined ? {} : { minLength }),
      ...(maxLength === undefined ? {} : { maxLength }),
    };
  }

  #number(element: Element, common: object, type: 'number' | 'range'): Drafted {
    const parsed = (name: string) => floatIn(attribute(element, name));
    // "The default minimum is 0. The default maximum is 100." (Range state)
    const min = parsed('min') ?? (type === 'range' ? 0 : undefined);
    const max = parsed('max') ?? (type === 'range' ? 100 : undefined);
    const asked = attribute(element, 'step')?.trim().toLowerCase();
    const given = floatIn(asked);
    // "The step scale factor is 1. The default step is 1 (allowing only integers to be selected by the user, unless the step base has a non-integer value)."
    const step = asked === 'any' ? undefined : given !== undefined && given > 0 ? given : 1;
    // "Step base": the minimum, else the value that the page gives, else 0.
    const value = parsed('value');
    if (
      min === undefined &&
      value !== undefined &&
      step !== undefined &&
      !Number.isInteger(value / step)
    )
      this.#note(element, `its steps count from its value ${value}; here they count from 0`);
    return fieldFrom({ ...common, kind: 'number', min, max, step, default: value });
  }

  #time(element: Element, common: object): Drafted {
    const asked = attribute(element, 'step')?.trim().toLowerCase();
    // "The step scale factor is 1000 (which converts the seconds to milliseconds). The default step is 60 seconds."
    const seconds = asked === 'any' ? undefined : (floatIn(asked) ?? 60);
    const minutes = seconds === undefined ? undefined : seconds / 60;
    const whole =
      minutes !== undefined && Number.isInteger(minutes) && minutes >= 1 && minutes <= 720;
    if (minutes !== undefined && !whole)
      this.#note(element, 'a time of day is taken to the minute');
    return fieldFrom({
      ...common,
      kind: 'time',
      ...this.#bounds(element, isTime),
      step: whole && minutes > 1 ? minutes : undefined,
      default: fitting(attribute(element, 'value'), isTime),
    });
  }

  #stepNoted(element: Element, standard: string): object {
    const step = attribute(element, 'step');
    if (step !== undefined && step !== standard && step !== 'any')
      this.#note(element, `steps of ${step} are left out`);
    return {};
  }

  #bounds(element: Element, fits: (text: string) => boolean): { min?: string; max?: string } {
    const [min, max] = ['min', 'max'].map((name) => fitting(attribute(element, name), fits));
    return { ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
  }

  /** One box alone is a yes or no; several of one name are options of which any number is chosen. */
  #checkbox(element: Element, common: { label: string }, seen: Set<string>): Drafted | null {
    const name = attribute(element, 'name');
    const group = name === undefined ? [] : this.#group(name, 'checkbox');
    if (group.length < 2)
      return fieldFrom({
        ...common,
        kind: 'yes_no',
        default: has(element, 'checked') ? true : undefined,
      });
    if (seen.has(name!)) return null;
    seen.add(name!);
    const chosen = group.filter((one) => has(one, 'checked')).map(valueOf);
    return fieldFrom({
      ...common,
      required: undefined,
      label: this.#groupLabel(element, name!),
      kind: 'choices',
      options: this.#options(group),
      default: chosen.length === 0 ? undefined : chosen,
    });
  }

  /** "If any of the input elements in the radio button group is required, the group is." */
  #radio(element: Element, common: { label: string }, seen: Set<string>): Drafted | null {
    const name = attribute(element, 'name');
    const group = name === undefined || name === '' ? [element] : this.#group(name, 'radio');
    if (name !== undefined) {
      if (seen.has(name)) return null;
      seen.add(name);
    }
    const chosen = group
      .filter((one) => has(one, 'checked'))
      .map(valueOf)
      .at(-1);
    return fieldFrom({
      ...common,
      label: this.#groupLabel(element, name ?? ''),
      required: group.some((one) => has(one, 'required')) ? true : undefined,
      kind: 'choice',
      display: 'radios',
      options: this.#options(group),
      default: chosen,
    });
  }

  /** A fieldset around the buttons of one group is that group, and no section. */
  #isGroup(fieldset: Element): boolean {
    const { count, name, areBoxes } = this.#controls.get(fieldset) ?? NO_CONTROLS;
    return count > 1 && name !== null && areBoxes;
  }

  #group(name: string, type: string): Element[] {
    return this.#groups.get(groupKey(name, type)) ?? [];
  }

  #groupLabel(element: Element, name: string): string {
    const fieldset = this.#fieldsets.above(element);
    const legend = fieldset !== null && this.#isGroup(fieldset) ? this.#legends.of(fieldset) : null;
    const within = this.#roles.above(element);
    const by = within === null ? undefined : attribute(within, 'aria-labelledby');
    return (
      asLabel(this.#texts.of(legend ?? this.#none)) ||
      asLabel(within === null ? '' : (attribute(within, 'aria-label') ?? '')) ||
      asLabel(by === undefined ? '' : this.#texts.of(this.#byId.get(by) ?? this.#none)) ||
      labelFrom(name.replace(/\[\]$/, '')) ||
      'Choice'
    );
  }

  #options(group: readonly Element[]): { key: string; label: string }[] {
    return unique(group.map((one) => ({ key: valueOf(one), label: this.#labelFor(one) })));
  }

  #select(element: Element, common: { label: string }): Drafted {
    const options = elementsIn(element).filter(({ tagName }) => tagName === 'option');
    const several = has(element, 'multiple');
    const asOption = (one: Element) => {
      const label = asLabel(attribute(one, 'label') ?? textOf(one));
      return {
        key: attribute(one, 'value') ?? label,
        label: label || (attribute(one, 'value') ?? ''),
      };
    };
    // "Placeholder label option": the first one, without a value.
    const held = options.map(asOption).filter(({ key }) => key !== '');
    const chosen = options
      .filter((one) => has(one, 'selected'))
      .map((one) => asOption(one).key)
      .filter((key) => key !== '');
    if (options.some((one) => has(one, 'disabled') && asOption(one).key !== ''))
      this.#note(element, 'options that are disabled are offered');
    return several
      ? fieldFrom({
          ...common,
          kind: 'choices',
          options: unique(held),
          default: chosen.length === 0 ? undefined : chosen,
        })
      : fieldFrom({
          ...common,
          kind: 'choice',
          options: unique(held),
          // A list without an empty option begins with its first one.
          ...(options.length > 0 && held.length === options.length ? { blank: false } : {}),
          default: chosen.at(-1),
        });
  }

  #file(element: Element, common: object): Drafted {
    const accept = (attribute(element, 'accept') ?? '')
      .split(',')
      .map((one) => one.trim().toLowerCase())
      .filter(Boolean);
    const types = accept.filter((one) => /^[a-z0-9.+-]+\/(\*|[a-z0-9.+-]+)$/.test(one));
    if (types.length < accept.length)
      this.#note(element, 'file name endings are left out: a form asks for media types');
    return fieldFrom({
      ...common,
      kind: 'file',
      maxFiles: has(element, 'multiple') ? 20 : undefined,
      types: types.length === 0 || types.length < accept.length ? undefined : types,
    });
  }

  /** "If the element is required and its checkedness is false, then the element is suffering from being missing." */
  #mustBeYes(name: string, label: string): void {
    this.#rules.push(
      `keep(${JSON.stringify(`${label.toLowerCase()} has to be ticked`)}, () => {\n  fields.${name}.problem = fields.${name}.value === false ? "This has to be ticked." : null;\n});\n`,
    );
  }
}

/** "A checkbox or radio button without a value has the value on." */
const valueOf = (element: Element) => attribute(element, 'value') || 'on';

function unique(
  options: readonly { key: string; label: string }[],
): { key: string; label: string }[] {
  const seen = new Set<string>();
  return options.flatMap(({ key, label }) => {
    if (seen.has(key) || key.length > 200) return [];
    seen.add(key);
    return [{ key, label: label || key }];
  });
}

/** "Rules for parsing floating-point number values", of which what a page writes is a valid floating-point number. */
function floatIn(text: string | undefined): number | undefined {
  if (text === undefined || !/^-?(?:\d+(?:\.\d+)?|\.\d+)(?:[eE][+-]?\d+)?$/.test(text))
    return undefined;
  const number = Number(text);
  return Number.isFinite(number) ? number : undefined;
}

const fitting = (text: string | undefined, fits: (text: string) => boolean) =>
  text !== undefined && fits(text) ? text : undefined;

const presetText = (text: string | undefined) =>
  text === undefined || text === '' ? {} : { default: text };

function childOf(element: Element, tag: string): Element | null {
  return (
    (element.childNodes.find((child) => 'tagName' in child && child.tagName === tag) as
      Element | undefined) ?? null
  );
}

/** The nearest element above another of which something is true. */
class Nearest {
  readonly #known = new Map<Element, Element | null>();

  constructor(private readonly is: (element: Element) => boolean) {}

  above(element: Element): Element | null {
    const passed: Element[] = [];
    let found: Element | null = null;
    for (
      let at: Tree.Node | null = element.parentNode;
      at !== null && 'tagName' in at;
      at = at.parentNode
    ) {
      const known = this.#known.get(at);
      if (known !== undefined) {
        found = known;
        break;
      }
      passed.push(at);
      if (this.is(at)) {
        found = at;
        break;
      }
    }
    for (const one of passed) this.#known.set(one, found);
    return found;
  }
}

/** What is worked out for a node, once. */
class Once<N extends Tree.Node, T> {
  readonly #known = new Map<N, T>();

  constructor(private readonly work: (node: N) => T) {}

  of(node: N): T {
    if (!this.#known.has(node)) this.#known.set(node, this.work(node));
    return this.#known.get(node)!;
  }
}

function addTo(map: Map<string, Element[]>, key: string | undefined, element: Element): void {
  if (key === undefined) return;
  const there = map.get(key);
  if (there === undefined) map.set(key, [element]);
  else there.push(element);
}

const groupKey = (name: string, type: string) => `${type} ${name}`;

/** What is known of the controls within an element. */
interface Controls {
  count: number;
  /** Null where they differ. */
  name: string | undefined | null;
  /** Buttons of a group, all of them. */
  areBoxes: boolean;
}

const NO_CONTROLS: Controls = { count: 0, name: undefined, areBoxes: true };

/** The controls within each element that holds any. `elements` stand in the order of the page. */
function controlsWithin(elements: readonly Element[]): ReadonlyMap<Element, Controls> {
  const found = new Map<Element, Controls>();
  const add = (to: Tree.Node | null, { count, name, areBoxes }: Controls) => {
    if (to === null || !('tagName' in to)) return;
    const there = found.get(to);
    if (there === undefined) found.set(to, { count, name, areBoxes });
    else {
      there.count += count;
      if (there.name !== name) there.name = null;
      there.areBoxes &&= areBoxes;
    }
  };
  // From the last to the first, what stands within an element comes before it.
  for (const element of elements.toReversed()) {
    if (isControl(element))
      add(element.parentNode, {
        count: 1,
        name: attribute(element, 'name'),
        areBoxes: ['radio', 'checkbox'].includes((attribute(element, 'type') ?? '').toLowerCase()),
      });
    const within = found.get(element);
    if (within !== undefined) add(element.parentNode, within);
  }
  return found;
}
