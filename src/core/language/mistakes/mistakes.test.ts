/** Each mistake with sources in which it must be found and sources in which it must not, over the demo's forms. */
import { scriptsOf } from '../../script/of-form';
import { describe, expect, test } from 'vitest';
import { demo, foundIn, languageOf, mended } from '../../../../tests/support/demo-language';
import { mistakes } from '.';
import { foundBy, type Mistake, type Subject } from './mistake';

interface Cases {
  form?: string;
  /** Other behaviours beside the one looked at. */
  beside?: string;
  wrong: string[];
  right: string[];
}

const cases: Record<string, Cases> = {
  'label-for-key': {
    wrong: [
      'const OWN = "Own pilot";\nkeep(() => { if (fields.pilot_choice.value === (OWN as string)) log(1); });',
      'const HINTS: Record<string, string> = { "Own pilot": "a", none: "b" };\nkeep(() => { fields.contact.hint = HINTS[fields.pilot_choice.value ?? "none"] ?? null; });',
      'const CHOICE = { own: "Own pilot" };\nkeep(() => { if ((fields.pilot_choice.value as string) === CHOICE.own) log(1); });',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "Own pilot"; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "harbour pilot") log(1); });',
      'on.load(() => { fields.pilot_choice.value = "No pilot"; });',
      'keep(() => { const choice = fields.pilot_choice.value; switch (choice) { case "Own pilot": log(1); } });',
      'keep(() => { if (["Own pilot", "harbour_pilot"].includes(fields.pilot_choice.value ?? "")) log(1); });',
      'on.load(() => { if (form.person.roles.includes("Ship\'s agent")) log(1); });',
      'on.load(() => { fields.berth.value = "North quay 1"; });',
      'keep(() => { if (["Own pilot", "harbour_pilot"].some((one) => one === fields.pilot_choice.value)) log(1); });',
      'keep(() => { for (const one of ["Own pilot", "none"]) if (fields.pilot_choice.value === one) log(1); });',
      'keep(() => { if (["Own pilot", "harbour_pilot"].indexOf(fields.pilot_choice.value ?? "") >= 0) log(1); });',
    ],
    right: [
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "own"; });',
      'keep(() => { log(fields.pilot_choice.optionLabel === "Own pilot"); });',
      'keep(() => { fields.pilot_choice.hint = "Own pilot"; });',
      'on.load(() => { fields.vessel.value = "Own pilot"; });',
      'on.load(() => { if (form.person.roles.includes("agent")) log("Ship\'s agent"); });',
      'keep(() => { if (["own"].includes(fields.pilot_choice.value ?? "")) log("Own pilot"); });',
    ],
  },
  'option-gone': {
    wrong: [
      'const SOME = ["own", "tug"];\nkeep(() => { if (SOME.includes(fields.pilot_choice.value ?? "")) log(1); });',
      'const SOME = new Set<string>(["own", "tug"]);\nkeep(() => { if (SOME.has(fields.pilot_choice.value ?? "")) log(1); });',
      'const FEES = new Map<string, number>([["own", 1], ["tug", 2]]);\nkeep(() => { log(FEES.get(fields.pilot_choice.value ?? "")); });',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "office_pilot"; });',
      'on.load(() => { fields.pilot_boarding.value = "inner_marks"; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value !== "harbor_pilot") log(1); });',
      'keep(() => { switch (fields.pilot_choice.value) { case "tug": log(1); } });',
      'on.load(() => { fields.berth.value = "nq9"; });',
      'on.load(() => { fields.pilot_choice.options = ["own", "tug"]; });',
      'on.load(() => { if (form.person.roles.includes("chief")) log(1); });',
    ],
    right: [
      'keep(() => { const choice = fields.pilot_choice.value ?? "open"; if (choice === "open") log(1); });',
      'const WHO: Record<string, string> = { own: "a", nobody: "b" };\nkeep(() => { log(WHO[fields.pilot_choice.value ?? "nobody"]); });',
      'const WHO: Record<string, string> = { own: "a", other: "b" };\nkeep(() => { log(WHO[fields.pilot_choice.value ?? ""] ?? WHO.other); });',
      'const WHO: Record<string, string> = { own: "a", fairway_buoy: "b" };\nkeep(() => { log(WHO[fields.pilot_choice.value ?? ""], WHO[fields.pilot_boarding.value ?? ""]); });',
      'const WORDS = ["tug", "buoy"];\nkeep(() => { log(WORDS.includes(fields.vessel.value ?? ""), WORDS.includes(fields.pilot_choice.value ?? "")); });',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "harbour_pilot"; });',
      'on.load(() => { fields.pilot_boarding.value = "inner_mark"; });',
      'keep(() => { log(fields.vessel.value === "office_pilot"); });',
      'on.load(() => { fields.pilot_choice.options = ["own", "none"]; });',
      'on.load(() => { fields.berth.value = form.isNew ? "nq1" : null; });',
      'keep(() => { const key: string = String(fields.vessel.value); log(key === "tug"); });',
    ],
  },
  'never-holds': {
    wrong: [
      'keep(() => { fields.vessel.hint = fields.vessel.value === "" ? "Which?" : null; });',
      'keep(() => { if (fields.vessel.value === undefined) log(1); });',
      'keep(() => { if (fields.draught.value === "3") log(1); });',
      'keep(() => { if (fields.shore_power.value === "yes") log(1); });',
      'keep(() => { if (fields.arrival.value === "02.05.2031") log(1); });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value !== "") log(1); });',
      'keep(() => { if (fields.pilot_choice.value === 1) log(1); });',
      'keep(() => { if ((fields.draught.value ?? 0) === "3") log(1); });',
    ],
    right: [
      'keep(() => { fields.vessel.hint = fields.vessel.value === null ? "Which?" : null; });',
      'keep(() => { if (fields.vessel.empty) log(1); });',
      'keep(() => { if (fields.draught.value === 3) log(1); });',
      'keep(() => { if (fields.shore_power.value === true) log(1); });',
      'keep(() => { if (fields.arrival.value === "2031-05-02") log(1); });',
      'keep(() => { if (fields.vessel_kind.row === undefined || fields.vessel_kind.row === null) log(1); });',
      'on.load(() => { const name = "" as string; if (name === "") log(1); });',
      'keep(() => { fields.vessel.required = (fields.vessel.value ?? "") === ""; });',
      'keep(() => { const name = fields.vessel.value ?? ""; fields.vessel.required = name === ""; });',
      'on.change(fields.vessel, async ({ value }) => { const asked = value ?? ""; await after(1); if ((fields.vessel.value ?? "") !== asked) log(1); });',
      'keep(() => { const name = fields.vessel.value ?? undefined; if (name === undefined) log(1); });',
      'keep(() => { if (fields.vessel.value === (form.isNew ? "" : fields.remarks.value)) log(1); });',
    ],
  },
  'assignment-in-condition': {
    wrong: [
      'keep(() => { if (fields.vessel.value = "Tern") log(1); });',
      'on.load(() => { let a = 1; if (a = 2) log(a); });',
      'on.load(() => { let a = 1; while (a = 0) log(a); });',
      'on.load(() => { let a = Number(form.record); log((a = 3) ? 1 : 2, a); });',
      'on.load(() => { let a = 1; if (fields.shore_power.value === true && (a = 2)) log(a); });',
      'on.load(() => { let a = form.isNew; if (!(a = true)) log(a); });',
    ],
    right: [
      'keep(() => { if (fields.vessel.value === "Tern") log(1); });',
      'on.load(() => { let a = 1; a = 2; if (a > 1) log(a); });',
      'on.load(() => { for (let i = 0; i < 3; i++) log(i); });',
      'on.load(() => { const f = (a = 2) => a; if (f() > 1) log(1); });',
      'on.load(() => { if ([1, 2].some((a) => a >= 2)) log(1); });',
      'on.load(() => { let a: number | null = null; a ??= 3; if (a <= 3) log(a); });',
      'on.load(() => { let a = 1; if ((a = 2)) log(a); });',
    ],
  },
  'part-for-value': {
    wrong: [
      'on.load(() => { fields.draught = 3; });',
      'keep(() => { if (fields.shore_power) log(1); });',
      'keep(() => { if (fields.pilot_choice === "own") log(1); });',
      'on.load(() => { sections.pilot = true; });',
      'keep(() => { fields.berth.shown = fields.shore_power ? true : false; });',
      'keep(() => { if (!fields.vessel) log(1); });',
      'keep.each(fields.cargo, (row) => { if (row.fields.goods_class === "class_2") log(1); });',
    ],
    right: [
      'on.load(() => { fields.draught.value = 3; });',
      'keep(() => { if (fields.shore_power.value) log(1); });',
      'on.change([fields.arrival, fields.departure], ({ part }) => { if (part === fields.arrival) log(1); });',
      'on.load(() => { for (const field of [fields.arrival, fields.departure]) field.value = null; });',
      'on.load(() => { const field = form.isNew ? fields.arrival : fields.departure; field.value = null; });',
      'on.submit((event) => { if (fields.vessel.empty) event.stop("Which vessel?", fields.vessel); });',
    ],
  },
  'wrong-kind': {
    wrong: [
      'on.load(() => { fields.draught.value = "3"; });',
      'on.load(() => { fields.shore_power.value = "true"; });',
      'on.load(() => { fields.pilot_choice.value = ""; });',
      'on.load(() => { fields.arrival.value = Temporal.Now.plainDateISO(); });',
      'on.load(() => { fields.arrival.value = "2.5.2031"; });',
      'on.load(() => { fields.draught.value = fields.vessel.value; });',
      'on.load(() => { fields.vessel.value = fields.draught.value; });',
      'on.change(fields.cargo.each.weight, ({ row }) => { row.fields.weight.value = "12"; });',
    ],
    right: [
      'on.load(() => { fields.draught.value = 3; });',
      'on.load(() => { fields.shore_power.value = true; });',
      'on.load(() => { fields.vessel.value = ""; });',
      'on.load(() => { fields.arrival.value = Temporal.Now.plainDateISO().toString(); });',
      'on.load(() => { fields.arrival.value = "2031-05-02"; });',
      'on.load(() => { fields.vessel.value = fields.draught.value === null ? null : String(fields.draught.value); });',
      'on.load(() => { fields.draught.value = null; });',
    ],
  },
  'piles-up': {
    wrong: [
      'on.change(fields.draught, () => { fields.contact.value += " deep"; });',
      'on.load(() => { fields.contact.value = fields.contact.value + " seen"; });',
      'on.change(fields.berth, ({ value }) => { fields.contact.value = `${fields.contact.value}, ${value}`; });',
      'on.submit(() => { const note = fields.contact.value ?? ""; fields.contact.value = note + " sent"; });',
      'on.saved(() => { fields.contact.value = (fields.contact.value ?? "").concat(" saved"); });',
    ],
    right: [
      'on.change(fields.draught, ({ value }) => { fields.contact.value = `${value} m deep`; });',
      'on.load(() => { if (!fields.contact.value?.includes("seen")) fields.contact.value = (fields.contact.value ?? "") + " seen"; });',
      'on.click(buttons.whole_week, () => { fields.contact.value = (fields.contact.value ?? "") + " a week"; });',
      'on.load(() => { if (fields.contact.empty) fields.contact.value = fields.contact.value + "x"; });',
      'on.change(fields.draught, () => { fields.length.value = (fields.length.value ?? 0) + 1; });',
      'on.change(fields.vessel, ({ value }) => { fields.contact.value = value + "@ships.example"; });',
    ],
  },
  'no-way-back': {
    wrong: [
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") sections.pilot.shown = true; });',
      'on.change(fields.shore_power, () => { if (fields.shore_power.value === true) { fields.berth.required = true; } });',
      'on.change(fields.draught, ({ value }) => { if (value === null || value < 9) return; fields.draught.hint = "Deep."; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") { fields.pilot_licence.required = true; fields.pilot_licence.shown = true; } else log(1); });',
      'const set = () => { if (fields.arrival.value !== null) fields.departure.locked = false; };\non.change(fields.arrival, set);',
    ],
    right: [
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") sections.pilot.shown = true; else sections.pilot.shown = false; });',
      'on.change(fields.pilot_choice, ({ value }) => { sections.pilot.shown = value === "own"; });',
      'on.change(fields.pilot_choice, ({ value }) => { sections.pilot.shown = false; if (value === "own") sections.pilot.shown = true; });',
      'keep(() => { if (fields.pilot_choice.value === "own") sections.pilot.shown = true; });',
      'on.change(fields.draught, ({ by }) => { if (by === "person") fields.draught.hint = "As measured."; });',
      'on.load(() => { if (form.isNew) fields.departure.locked = true; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") fields.pilot_boarding.value = null; });',
    ],
  },
  'reads-untied': {
    wrong: [
      'on.change(fields.arrival, () => { fields.departure.shown = fields.arrival.value !== null ? true : false; if (fields.shore_power.value === true) fields.berth.required = true; else fields.berth.required = false; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own" && fields.vessel_kind.row?.pilot_required === true) fields.pilot_licence.required = true; else fields.pilot_licence.required = false; });',
      'on.change(fields.length, () => { if ((fields.draught.value ?? 0) > 5) fields.length.hint = "Deep."; else fields.length.hint = null; });',
      'on.change(fields.berth, () => { const wants = fields.shore_power.value === true; if (wants) fields.berth.hint = "With power."; else fields.berth.hint = null; });',
      'on.change([fields.arrival, fields.departure], () => { if (fields.berth.empty) fields.berth.required = true; else fields.berth.required = false; });',
    ],
    right: [
      'on.change([fields.arrival, fields.shore_power], () => { if (fields.shore_power.value === true && fields.arrival.value !== null) fields.berth.required = true; else fields.berth.required = false; });',
      'keep(() => { if (fields.shore_power.value === true) fields.berth.required = true; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "harbour_pilot" && fields.pilot_boarding.empty) fields.pilot_boarding.value = "inner_mark"; });',
      'on.change(fields.length, () => { if (form.isNew) fields.length.hint = "New."; else fields.length.hint = null; });',
      'const judge = () => { if (fields.shore_power.value === true && fields.berth.empty) fields.berth.hint = "Which?"; else fields.berth.hint = null; };\non.change(fields.shore_power, judge);\non.change(fields.berth, judge);',
      'on.submit((event) => { if (fields.berth.empty && fields.shore_power.value === true) event.stop("Which berth?", fields.berth); });',
    ],
  },
  'missing-load': {
    wrong: [
      'on.change(fields.pilot_choice, ({ value }) => { sections.pilot.shown = value === "own"; });',
      'on.change(fields.draught, () => { fields.draught.hint = (fields.draught.value ?? 0) > 9 ? "Deep." : null; });',
      'on.change(fields.shore_power, ({ value }) => { if (value === true) fields.berth.required = true; else fields.berth.required = false; });',
      'on.change(fields.arrival, () => { fields.departure.locked = fields.arrival.empty; });\non.load(() => { fields.vessel.locked = true; });',
      'function judge(): void { fields.pilot_licence.required = fields.pilot_choice.value === "own"; }\non.change(fields.pilot_choice, judge);',
    ],
    right: [
      'const judge = () => { sections.pilot.shown = fields.pilot_choice.value === "own"; };\non.change(fields.pilot_choice, judge);\non.load(judge);',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "own"; });',
      'on.change(fields.draught, () => { fields.draught.hint = null; });',
      'on.change(fields.draught, async ({ value }) => { const { level } = await services.tide_gauge.level({ day: "2031-05-02" }); fields.draught.hint = `${value} m, tide ${level} m`; });',
      'on.change(fields.draught, ({ value, previous }) => { fields.draught.hint = previous === null ? null : `It was ${previous}, now ${value}.`; });',
      'on.change(fields.draught, ({ value }) => { fields.length.value = value === null ? null : value * 20; });',
    ],
  },
  'rule-reads-own': {
    wrong: [
      'keep(() => { fields.length.value = (fields.length.value ?? 0) + 1; });',
      'keep(() => { if (fields.draught.value === null) fields.draught.value = 4; });',
      'keep(() => { sections.pilot.shown = !sections.pilot.shown; });',
      'keep.each(fields.cargo, (row) => { row.fields.weight.value = (row.fields.weight.value ?? 0) * 2; });',
      'keep(() => { const now = fields.dues.value ?? 0; fields.dues.value = now + (fields.length.value ?? 0); });',
      'keep(() => { fields.draught.value = fields.draught.value === null ? 3 : null; });',
      'keep(() => { fields.draught.value = Math.min(fields.draught.value ?? 0, 9) + 1; });',
      'keep(() => { const { value } = fields.draught; if (value === 3) fields.draught.value = 4; else fields.draught.value = 3; });',
      'keep(() => { const next = (fields.draught.value ?? 0) + 1; fields.draught.value = Math.max(next, fields.draught.value ?? 0); });',
      'keep(() => { fields.vessel.value = (fields.vessel.value ?? "").replace("a", "aa"); });',
      'keep(() => { const draught = (fields.draught.value ?? 0) + 1; fields.draught.value = Math.max(fields.draught.value ?? 0, draught); });',
      'keep(() => { const again = (): number => again() + (fields.draught.value ?? 0); fields.draught.value = Math.max(fields.draught.value ?? 0, again()); });',
    ],
    right: [
      'keep(() => { fields.dues.value = (fields.length.value ?? 0) * 2; });',
      'keep(() => { fields.dues.value = (fields.length.value ?? 0) * 2; fields.dues.hint = fields.dues.value === null ? null : `${fields.dues.value} in all`; });',
      'keep(() => { fields.vessel.value = fields.vessel.value?.trim().toUpperCase() ?? null; });',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "own"; fields.pilot_licence.required = sections.pilot.shown; });',
      'on.change(fields.draught, () => { if (fields.length.value === null) fields.length.value = 20; });',
      'keep(() => { fields.draught.problem = (fields.draught.value ?? 0) > 20 ? "Too deep." : null; });',
      'keep(() => { fields.dues.value = round(fields.tariff.sum("amount"), 2); });',
      'keep(() => { const length = fields.length.value ?? 0; fields.draught.value = Math.max(fields.draught.value ?? 2, length); });',
      'keep(() => { const draught = fields.draught.value; fields.draught.value = Math.min(draught ?? 2, 9); });',
      'keep(() => { const least = (): number => least(); fields.draught.value = Math.max(fields.draught.value ?? 2, least()); });',
    ],
  },
  'carried-state': {
    wrong: [
      'let times = 0;\non.change(fields.draught, () => { times++; log(times); });',
      'const seen = new Set<string>();\non.change(fields.vessel, ({ value }) => { seen.add(value ?? ""); });',
      'let last: string | null = null;\non.change(fields.vessel, ({ value }) => { if (value === last) return; last = value; });',
      'const names: string[] = [];\non.click(buttons.whole_week, () => { names.push(fields.vessel.value ?? ""); log(names); });',
      'const state = { asked: false };\non.change(fields.berth, () => { state.asked = true; });',
      'const known = new Map<string, number | null>();\non.change(fields.vessel, ({ value }) => { known.set(value ?? "", fields.length.value); });',
      'const known = new Map<string, string | null>();\non.change(fields.vessel, ({ value }) => { known.set("last", value); });',
      'const known = new Map<string, string | null>();\non.change(fields.vessel, ({ value }) => { known.set(value ?? "", value); log(known.size); });',
      'const known: Record<string, string> = {};\non.change(fields.vessel, ({ value }) => { known[value ?? ""] = form.person.name; });',
    ],
    right: [
      'let times = 0;\non.load(() => { times = 0; });\non.change(fields.draught, () => { times++; log(times); });',
      'const LIMIT = 3;\nkeep(() => { fields.draught.required = LIMIT > 2; });',
      'on.change(fields.draught, () => { let times = 0; times++; log(times); });',
      'const kinds = ["own", "none"];\nkeep(() => { const copy = [...kinds]; copy.push("x"); log(copy); });',
      'const field = fields.draught;\non.load(() => { field.value = 3; });',
      'const seen = new Set<string>();\non.load(() => { seen.clear(); });\non.change(fields.vessel, ({ value }) => { seen.add(value ?? ""); });',
    ],
  },
  'tied-inside': {
    wrong: [
      'on.change(fields.vessel, () => { on.change(fields.draught, () => log(1)); });',
      'on.blur(fields.vessel, () => { keep(() => { sections.pilot.shown = true; }); });',
      'on.click(buttons.whole_week, () => { on.submit((event) => event.stop("No.")); });',
      'keep(() => { on.load(() => log(1)); });',
      'function tie(): void { on.change(fields.draught, () => log(1)); }\non.change(fields.vessel, tie);',
    ],
    right: [
      'on.change(fields.vessel, () => log(1));\non.change(fields.draught, () => log(1));',
      'on.load(() => { on.change(fields.draught, () => log(1)); });',
      'on.load(() => { keep(() => { sections.pilot.shown = true; }); });',
      'for (const field of [fields.arrival, fields.departure]) on.change(field, () => log(1));',
      'const untie = on.change(fields.draught, () => { untie(); });',
      'function tie(): void { on.change(fields.draught, () => log(1)); }\ntie();',
    ],
  },
  'stale-await': {
    form: 'vessel',
    wrong: [
      'on.click(buttons.look_up, async () => { const imo = fields.imo.value ?? ""; const ship = await services.ship_register.find({ imo }); fields.name.value = ship?.name ?? null; });',
      'on.change(fields.imo, async ({ value }) => { const ship = await services.ship_register.find({ imo: value ?? "" }); fields.name.value = ship?.name ?? null; }, { overlap: "all" });',
      'on.change(fields.kind, async () => { const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); fields.length.value = ship?.length ?? null; });',
      'const ask = async (imo: string) => { const ship = await services.ship_register.find({ imo }); if (ship !== null) fields.name.value = ship.name; };\non.click(buttons.look_up, async () => { await ask(fields.imo.value ?? ""); });',
      'on.click(buttons.look_up, async () => { sections.measures.locked = true; const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); fields.name.value = ship?.name ?? null; sections.measures.locked = false; });',
      'on.blur(fields.imo, async () => { const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); fields.name.value = ship?.name ?? null; });',
    ],
    right: [
      'on.click(buttons.look_up, async () => { const imo = fields.imo.value ?? ""; const ship = await services.ship_register.find({ imo }); if (fields.imo.value !== imo) return; fields.name.value = ship?.name ?? null; });',
      'on.change(fields.imo, async ({ value }) => { const ship = await services.ship_register.find({ imo: value ?? "" }); fields.name.value = ship?.name ?? null; });',
      'on.click(buttons.look_up, async () => { fields.imo.locked = true; const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); fields.name.value = ship?.name ?? null; fields.imo.locked = false; });',
      'on.click(buttons.look_up, async () => { sections.identity.locked = true; const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); fields.name.value = ship?.name ?? null; sections.identity.locked = false; });',
      'on.load(async () => { const ship = await services.ship_register.find({ imo: "9900007" }); fields.name.value = ship?.name ?? null; });',
      'on.click(buttons.look_up, async () => { const ship = await services.ship_register.find({ imo: fields.imo.value ?? "" }); log(ship); });',
      'on.click(buttons.look_up, async () => { await after(500); fields.name.value = null; });',
    ],
  },
  'past-event': {
    wrong: [
      'on.change(fields.draught, ({ value, previous }) => { if (value === previous) return; log(1); });',
      'on.submit((event) => { if (fields.pilot_choice.previous === "own") event.stop("No."); });',
      'keep(() => { fields.berth.required = fields.pilot_choice.previous === "own"; });',
      'on.saved(() => { if (fields.draught.value !== fields.draught.initial) log(1); });',
      'on.saved(() => { if (form.changed) log(1); });',
      'on.load(() => { if (fields.draught.previous !== null) log(1); });',
    ],
    right: [
      'on.change(fields.draught, ({ value, previous }) => { if (value !== null && previous !== null && value > previous) log(1); });',
      'on.submit((event) => { if (fields.pilot_choice.initial === "own") event.stop("No."); });',
      'on.submit(() => { if (fields.draught.value !== fields.draught.initial) log(1); });',
      'on.change(fields.pilot_choice, () => { if (fields.pilot_choice.previous === "own") log(1); });',
      'on.submit(() => { if (form.changed) log(1); });',
      'on.saved(() => { log(fields.draught.previous); });',
    ],
  },
  'two-steer': {
    beside:
      '/** Other: steers. */\nkeep(() => { sections.pilot.shown = fields.pilot_choice.value === "own"; fields.dues.value = 3; });\non.change(fields.vessel, () => { fields.berth.hint = null; fields.length.value = 3; });',
    wrong: [
      'keep(() => { sections.pilot.shown = fields.draught.value === 3; });',
      'on.change(fields.length, () => { sections.pilot.shown = true; });',
      'keep(() => { fields.berth.hint = "Which?"; });',
      'keep(() => { fields.dues.value = fields.length.value; });',
      'const pilot = sections.pilot;\non.click(buttons.whole_week, () => { pilot.shown = false; });',
    ],
    right: [
      'keep(() => { sections.pilot.locked = fields.draught.value === 3; });',
      'on.load(() => { fields.length.value = 4; });',
      'keep(() => { fields.draught.hint = "Which?"; });',
      'on.load(() => { fields.dues.value = null; });',
      'on.load(() => { sections.pilot.shown = true; });',
      'keep(() => { fields.vessel.hint = sections.pilot.shown ? "With a pilot." : null; });',
    ],
  },
  'clock-in-rule': {
    wrong: [
      'keep(() => { fields.arrival.hint = String(Date.now()); });',
      'keep(() => { fields.draught.value = Math.random(); });',
      'keep(() => { fields.arrival.hint = new Date().toISOString(); });',
      'keep(() => { fields.arrival.locked = Temporal.Now.plainTimeISO().hour > 17; });',
      'const soon = () => Temporal.Now.instant().toString();\nkeep(() => { fields.arrival.hint = soon(); });',
    ],
    right: [
      'keep(() => { fields.arrival.problem = (fields.arrival.value ?? "") > Temporal.Now.plainDateISO().toString() ? "To come." : null; });',
      'on.load(() => { fields.arrival.hint = String(Date.now()); });',
      'on.change(fields.draught, () => { log(Math.random()); });',
      'keep(() => { fields.arrival.hint = new Date(0).toISOString(); });',
      'keep(() => { fields.draught.value = Math.max(3, fields.length.value ?? 0); });',
    ],
  },
  'invariant-acts': {
    wrong: [
      'always("x", () => { fields.contact.required = true; return true; });',
      'always("x", () => { form.message("Wrong."); return false; });',
      'let asked = 0;\nalways("x", () => { asked += 1; return asked < 100; });',
      'const note = () => { fields.draught.value = 3; };\nalways("x", () => { note(); return true; });',
      'always("x", () => Math.random() < 2);',
      'always.each(fields.cargo, "x", (row) => { row.fields.un_number.required = true; return true; });',
    ],
    right: [
      'always("x", () => !fields.contact.required || fields.vessel.value !== null);',
      'always("x", () => { let sum = 0; for (const row of fields.cargo.rows) sum += row.fields.weight.value ?? 0; return sum < 99999; });',
      'always.each(fields.cargo, "x", (row) => row.fields.weight.value === null || row.fields.weight.value > 0);',
      'keep("y", () => { fields.contact.required = fields.vessel.value !== null; });\nalways("x", () => { log("looked"); return true; });',
      'const seen = new Map<string, boolean>();\nalways("x", () => { const kind = fields.vessel_kind.value ?? ""; if (!seen.has(kind)) seen.set(kind, kind !== "?"); return seen.get(kind) === true; });',
    ],
  },
  'never-reached': {
    wrong: [
      'keep(() => { fields.contact.required = fields.pilot_choice.value === "own" && fields.pilot_choice.value === "none"; });',
      'keep(() => { fields.contact.shown = fields.pilot_choice.value !== "own" || fields.pilot_choice.value !== null; });',
      'keep(() => { const d = fields.draught.value ?? 0; if (d > 3) { fields.contact.hint = "Deep."; return; } if (d > 9) { fields.contact.hint = "Very deep."; return; } fields.contact.hint = null; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") log(1); else if (value === "own") log(2); });',
      'const limit = (d: number) => { if (d < 5) { if (d > 9) return "x"; } return "y"; };\nkeep(() => { fields.contact.hint = fields.draught.value === null ? null : limit(fields.draught.value); });',
    ],
    right: [
      'keep(() => { fields.contact.required = fields.pilot_choice.value === "own" || fields.pilot_choice.value === "none"; });',
      'keep(() => { const d = fields.draught.value; if (d === null) return; if (d !== null && d > 9) fields.contact.hint = "Deep."; });',
      'on.change(fields.pilot_choice, ({ value }) => { if (value === "own") { fields.pilot_choice.value = "none"; if (fields.pilot_choice.value === "none") log(1); } });',
      'on.change(fields.draught, async ({ value }) => { if ((fields.length.value ?? 0) > 9) return; await services.ships.find({ imo: "x" }); if ((fields.length.value ?? 0) > 20) log(value); });',
      'const band = (n: number) => { if (n < 3) return "a"; if (n < 30) return "b"; return "c"; };\nkeep(() => { fields.contact.hint = band(fields.draught.value ?? 0) + band(fields.length.value ?? 0); });',
      'keep(() => { switch (fields.pilot_choice.value) { case "own": fields.contact.shown = fields.pilot_choice.value === "own"; } });',
    ],
  },
  'beyond-limits': {
    wrong: [
      'keep(() => { fields.contact.required = (fields.draught.value ?? 0) > 20; });',
      'keep(() => { if (fields.length.value !== null && fields.length.value < 2) fields.contact.shown = false; });',
      'const MOST = 400;\nkeep(() => { fields.contact.shown = (fields.length.value ?? 0) >= MOST; });',
      'keep(() => { fields.contact.hint = (fields.draught.value ?? 0) <= 16 ? "Any berth." : "None."; });',
      'on.change(fields.draught, ({ value }) => { if (value !== null && value > 100) fields.contact.required = true; });',
    ],
    right: [
      'keep(() => { fields.contact.required = (fields.draught.value ?? 0) > 12; });',
      'keep(() => { fields.draught.problem = (fields.draught.value ?? 0) > 16 ? "No berth is as deep." : null; });',
      'on.submit((event) => { if ((fields.draught.value ?? 0) > 16) event.stop("No berth is as deep.", fields.draught); });',
      'keep(() => { fields.contact.required = (fields.length.initial ?? 0) > 400; });',
      'keep(() => { fields.contact.required = (fields.length.value ?? 0) * 2 > 400; });',
      'keep.each(fields.cargo, (row) => { row.fields.un_number.required = (row.fields.weight.value ?? 0) > 100000; });',
    ],
  },
  'text-of-no-row': {
    wrong: [
      'keep(() => { fields.contact.shown = fields.berth.row?.name === "nq1"; });',
      'keep(() => { const { row } = fields.berth; fields.contact.hint = row !== null && row.name === "Quay 99" ? "Far." : null; });',
      'const FAR = "Quay 99";\nkeep(() => { fields.contact.required = fields.berth.row?.name === FAR; });',
      'keep(() => { fields.contact.required = ["Quay 98", "Quay 99"].includes(fields.berth.row?.name ?? ""); });',
      'on.change(fields.berth, ({ part }) => { if (part.row?.name === "Quay 99") fields.contact.required = true; });',
    ],
    right: [
      'keep(() => { fields.contact.shown = fields.berth.row?.name === "North quay 1"; });',
      'keep(() => { fields.contact.shown = (fields.berth.row?.depth ?? 0) > 90; });',
      'keep(() => { fields.contact.shown = fields.berth.row?.name !== fields.vessel.value; });',
      'keep(() => { fields.contact.shown = fields.berth.row !== null; });',
      'keep(() => { fields.contact.shown = fields.berth.optionLabel === "Quay 99"; });',
    ],
  },
  'launch-of-no-name': {
    wrong: [
      'on.load(() => { fields.vessel.value = form.launch.vesel ?? null; });',
      'on.load(() => { log(form.launch.vessels); });',
      'keep(() => { fields.contact.shown = form.launch.vessel_recrod === "x"; });',
      'on.load(() => { if (form.launch.Vessel) log(1); });',
      'on.saved(() => { log(form.launch.vesssel); });',
    ],
    right: [
      'on.load(() => { fields.vessel.value = form.launch.vessel; });',
      'on.load(() => { log(form.launch.source); });',
      'on.load(() => { log(form.launch.vessel_record); });',
      'on.load(() => { const { vessel } = form.launch; log(vessel); });',
      'on.load(() => { const other = { launch: { vesel: 1 } }; log(other.launch.vesel); });',
    ],
  },
  'joined-numbers': {
    wrong: [
      'keep(() => { fields.contact.hint = "Deep: " + (fields.draught.value ?? 0) + 1; });',
      'keep(() => { fields.contact.hint = "In all " + (fields.length.value ?? 0) + (fields.draught.value ?? 0) + " m"; });',
      'keep(() => { fields.dues.value = Number((fields.vessel.value ?? "") + 1); });',
      'const START = "Row ";\nkeep(() => { fields.contact.hint = START + fields.cargo.count + 1; });',
      'keep(() => { fields.vessel.value = fields.contact.value + 1; });',
    ],
    right: [
      'keep(() => { fields.contact.hint = "Deep: " + ((fields.draught.value ?? 0) + 1); });',
      'keep(() => { fields.contact.hint = "From " + (fields.draught.value ?? 0) + " to " + (fields.length.value ?? 0); });',
      'keep(() => { fields.contact.hint = (fields.draught.value ?? 0) + 1 + " m"; });',
      'keep(() => { fields.contact.hint = fields.vessel.value + " " + fields.contact.value; });',
      'keep(() => { fields.dues.value = (fields.draught.value ?? 0) + 1; });',
    ],
  },
  'money-in-doubles': {
    wrong: [
      'keep(() => { fields.contact.hint = "With tax: " + (fields.dues.value ?? 0) * 1.1; });',
      'keep(() => { fields.contact.required = (fields.dues.value ?? 0) * 0.1 === 11; });',
      'keep(() => { fields.contact.hint = `${(fields.dues.value ?? 0) / 3} each`; });',
      'keep(() => { fields.dues.value = Math.round((fields.length.value ?? 0) * 1.005 * 100) / 100; });',
      'keep(() => { const tax = (fields.dues.value ?? 0) * 0.07; fields.contact.hint = "Tax: " + tax; });',
      'keep(() => { fields.contact.hint = ((fields.dues.value ?? 0) * 1.1).toFixed(2); });',
    ],
    right: [
      'keep(() => { fields.contact.hint = "With tax: " + round((fields.dues.value ?? 0) * 1.1, 2); });',
      'keep(() => { fields.contact.required = (fields.dues.value ?? 0) * 1.1 > 500; });',
      'keep(() => { fields.contact.required = fields.dues.value === 100; });',
      'keep(() => { fields.contact.hint = "Length: " + (fields.length.value ?? 0) * 2; });',
      'keep(() => { fields.contact.hint = `${fields.dues.value ?? 0} in all`; });',
      'keep(() => { fields.length.value = Math.round((fields.draught.value ?? 0) * 10); });',
    ],
  },
  'empty-for-zero': {
    wrong: [
      'keep(() => { fields.contact.shown = (fields.draught.value ?? 0) < 5; });',
      'keep(() => { fields.contact.hint = Number(fields.length.value) <= 20 ? "Small." : null; });',
      'keep(() => { const length = fields.length.value ?? 0; if (length < 12) fields.contact.required = true; });',
      'keep(() => { fields.contact.shown = 5 > (fields.draught.value || 0); });',
      'on.load(() => { if (!((fields.length.value ?? 0) >= 50) && (fields.length.value ?? 0) < 40) log(1); });',
    ],
    right: [
      'keep(() => { fields.contact.shown = fields.draught.value !== null && fields.draught.value < 5; });',
      'keep(() => { fields.contact.shown = (fields.draught.value ?? 0) > 5; });',
      'keep(() => { fields.contact.shown = (fields.draught.value ?? 5) < 5; });',
      'keep(() => { fields.contact.hint = (fields.length.value ?? 0) < 1 ? "Nothing entered." : null; });',
      'keep(() => { if (fields.length.value === null) return; if ((fields.length.value ?? 0) < 12) fields.contact.required = true; });',
      'keep(() => { fields.contact.shown = !fields.length.empty && (fields.length.value ?? 0) < 12; });',
    ],
  },
  'untouched-for-no': {
    wrong: [
      'keep(() => { fields.contact.shown = !fields.shore_power.value; });',
      'keep(() => { if (!fields.shore_power.value) fields.contact.required = true; });',
      'keep(() => { fields.contact.required = fields.shore_power.value ? false : true; });',
      'keep(() => { if (fields.shore_power.value) fields.contact.required = false; else fields.contact.required = true; });',
      'on.submit((event) => { if (!fields.dues_accepted.value) event.stop("Accept the dues.", fields.dues_accepted); });',
      'keep(() => { const power = fields.shore_power.value ?? false; fields.contact.shown = power === false; });',
    ],
    right: [
      'keep(() => { fields.contact.shown = fields.shore_power.value === false; });',
      'keep(() => { fields.contact.shown = fields.shore_power.value !== true; });',
      'keep(() => { fields.contact.shown = Boolean(fields.shore_power.value); });',
      'keep(() => { if (fields.shore_power.value) fields.contact.required = true; else fields.contact.required = false; });',
      'keep(() => { fields.contact.shown = !fields.vessel.value; });',
      'on.load(() => { log(!fields.shore_power.value); });',
    ],
  },
  'local-day': {
    wrong: [
      'keep(() => { fields.contact.hint = fields.arrival.value !== null && new Date(fields.arrival.value).getDay() === 0 ? "Sunday." : null; });',
      'on.change(fields.arrival, ({ value }) => { if (value !== null) log(new Date(value).getDate()); });',
      'on.change(fields.arrival, ({ value }) => { if (value === null) return; const day = new Date(value); log(day.getFullYear()); });',
      'on.load(() => { log(new Date(fields.departure.value!).getMonth() + 1); });',
      'on.load(() => { log(new Date(fields.departure.value ?? "").getHours()); });',
    ],
    right: [
      'on.load(() => { log(new Date(fields.departure.value!).getUTCDay()); });',
      'on.load(() => { log(new Date(fields.arrival.value! + "T12:00").getDay()); });',
      'on.load(() => { log(new Date().getDay()); });',
      'on.load(() => { log(Temporal.PlainDate.from(fields.arrival.value!).dayOfWeek); });',
      'on.load(() => { log(new Date(fields.contact.value!).getDay()); });',
    ],
  },
  'months-from-zero': {
    wrong: [
      'on.load(() => { const now = new Date(); if (now.getMonth() === 12) log(1); });',
      'on.load(() => { log(`${new Date().getMonth()}/${new Date().getFullYear()}`); });',
      'on.load(() => { log("Month " + new Date().getUTCMonth()); });',
      'const MONTHS = ["J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D"];\nkeep(() => { fields.contact.hint = fields.arrival.value === null ? null : MONTHS[Temporal.PlainDate.from(fields.arrival.value).month]!; });',
      'on.load(() => { const month = new Date().getMonth(); if (month >= 9 && month <= 12) log(1); });',
    ],
    right: [
      'on.load(() => { if (new Date().getMonth() === 11) log(1); });',
      'on.load(() => { log(`${new Date().getMonth() + 1}/${new Date().getFullYear()}`); });',
      'on.load(() => { log("Month " + (new Date().getUTCMonth() + 1)); });',
      'const MONTHS = ["J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D"];\nkeep(() => { fields.contact.hint = fields.arrival.value === null ? null : MONTHS[Temporal.PlainDate.from(fields.arrival.value).month - 1]!; });',
      'keep(() => { fields.contact.hint = fields.arrival.value !== null && Temporal.PlainDate.from(fields.arrival.value).month === 12 ? "x" : null; });',
    ],
  },
  'days-for-months': {
    wrong: [
      'const DAY = 86_400_000;\non.load(() => { log((Date.parse(fields.departure.value!) - Date.parse(fields.arrival.value!)) / DAY / 30); });',
      'on.load(() => { fields.departure.value = Temporal.PlainDate.from("2031-05-02").add({ days: 365 }).toString(); });',
      'on.load(() => { log(Date.parse("2031-05-02") + 365 * 24 * 60 * 60 * 1000); });',
      'on.load(() => { log(Temporal.PlainDate.from("2031-05-02").until("2032-05-02").days / 365); });',
      '// A month later.\non.load(() => { fields.departure.value = Temporal.PlainDate.from("2031-05-02").add({ days: 30 }).toString(); });',
    ],
    right: [
      'on.load(() => { fields.departure.value = Temporal.PlainDate.from("2031-05-02").add({ days: 30 }).toString(); });',
      'on.load(() => { fields.departure.value = Temporal.PlainDate.from("2031-05-02").add({ years: 1 }).toString(); });',
      'keep(() => { fields.contact.hint = `${(fields.length.value ?? 0) / 30}`; });',
      'const DAY = 24 * 60 * 60 * 1000;\non.load(() => { log(Date.parse("2031-05-02") + 30 * DAY); });',
      'on.load(() => { log(Temporal.PlainDate.from("2031-05-02").until("2032-05-02", { largestUnit: "month" }).months); });',
    ],
  },
  'idle-behaviour': {
    wrong: [
      'const LIMIT = 3;',
      'function judge(): void { sections.pilot.shown = true; }',
      'const judge = () => { fields.draught.value = 3; };',
      'log(1);',
      'interface Row { a: number }\nconst rows: Row[] = [];\nlog(rows);',
    ],
    right: [
      '',
      '/** Nothing yet: only a comment. */',
      'on.load(() => log(1));',
      'keep(() => { sections.pilot.shown = true; });',
      'function tie(): void { on.load(() => log(1)); }\ntie();',
      ';',
    ],
  },
};

describe.each(mistakes.map(({ code }) => code))('%s', (code) => {
  const { form = 'berth_visit', beside, wrong, right } = cases[code]!;
  const found = (text: string) =>
    foundIn(form, text, beside).filter((diagnosis) => diagnosis.code === code);

  test('has at least five sources each way', () => {
    expect(Math.min(wrong.length, right.length)).toBeGreaterThanOrEqual(5);
  });

  test.each(wrong)('is found: %s', (text) => {
    const [first] = found(text);
    expect(first).toBeDefined();
    // What it says names a part of the form or what was written, and ends as a sentence.
    expect(first!.says).toMatch(/\.$/);
    for (const fix of first!.fixes) {
      const after = mended(text, fix.edits);
      expect(after).not.toBe(text);
      expect(found(after).length, `${fix.title}:\n${after}`).toBeLessThan(found(text).length);
      expect(
        foundIn(form, after, beside).filter(({ severity }) => severity === 'error'),
        `${fix.title}:\n${after}`,
      ).toEqual([]);
    }
  });

  test.each(right)('is not found: %s', (text) => {
    expect(found(text)).toEqual([]);
  });

  test('is found in JavaScript alike', () => {
    const plain = wrong.find(
      (text) => !/: (?:string|number|void)|<string|interface|\bas \w|![.;)\]]/.test(text),
    )!;
    expect(foundIn(form, plain, beside, 'x.js').some((diagnosis) => diagnosis.code === code)).toBe(
      true,
    );
  });
});

test('a check that fails says so and costs only its own findings', () => {
  const failing: Mistake = {
    code: 'fails',
    title: 'A check that fails',
    severity: 'warning',
    find: () => {
      throw new RangeError('Maximum call stack size exceeded');
    },
  };
  expect(foundBy(failing, {} as Subject)).toMatchObject([
    {
      from: 0,
      to: 0,
      says: 'This script could not be checked for “A check that fails” (Maximum call stack size exceeded). Everything else was checked.',
    },
  ]);
});

test('the demo has none', () => {
  for (const { form, behaviours } of demo.forms) {
    const language = languageOf(form.name);
    const scripts = scriptsOf(form, behaviours, demo.shared);
    for (const script of scripts) language.put(script);
    expect(scripts.flatMap(({ name }) => language.diagnose(name))).toEqual([]);
    expect(language.idleParts()).toEqual([]);
    for (const { name } of scripts) language.remove(name);
  }
});

describe('idle-part', () => {
  const idle = (text: string) => {
    const language = languageOf('works_permit');
    language.put({ name: 'x.ts', text });
    const found = language.idleParts().map(({ part }) => part);
    language.remove('x.ts');
    return found;
  };

  test('names what waits for a script: buttons, hidden parts, fields for scripts alone', () => {
    expect(idle('on.load(() => log(1));')).toEqual([
      'next_day',
      'fire_watch',
      'dive_supervisor',
      'plan',
      'full',
      'short',
      'hours',
      'at_night',
    ]);
  });

  test.each([
    ['next_day', 'on.click(buttons.next_day, () => log(1));'],
    ['fire_watch', 'keep(() => { fields.fire_watch.shown = true; });'],
    [
      'full',
      'keep(() => { for (const track of [tracks.full, tracks.short]) track.shown = true; });',
    ],
    ['hours', 'keep(() => { fields.hours.value = 3; });'],
    ['plan', 'const { plan } = fields;\non.load(() => { plan.shown = true; });'],
  ])('%s is no longer named once it is steered', (part, text) => {
    expect(idle(text)).not.toContain(part);
  });

  test.each([
    ['next_day', 'on.load(() => { buttons.next_day.locked = true; });'],
    ['fire_watch', 'keep(() => { fields.fire_watch.required = true; });'],
    ['full', 'keep(() => { tracks.full.stage = "asked"; });'],
    ['hours', 'keep(() => { fields.hours.hint = "x"; });'],
    ['hours', '/** Off: not now.\n * @off\n */\nkeep(() => { fields.hours.value = 3; });'],
  ])('%s is named as long as only something else is said of it', (part, text) => {
    expect(idle(text)).toContain(part);
  });
});

test('a handler that reads more than it is tied to is offered to be tied to that too', () => {
  const text =
    'on.change(fields.berth, () => { if (fields.shore_power.value === true) fields.berth.hint = "With power."; else fields.berth.hint = null; });';
  const [found] = foundIn('berth_visit', text).filter(({ code }) => code === 'reads-untied');
  const [fix] = found!.fixes.filter(({ title }) => title === 'Tie it to shore_power too');
  expect(mended(text, fix!.edits)).toContain('on.change([fields.berth, fields.shore_power], ');
  // One that uses the event is about one field.
  const ofOne = text.replace('() =>', '({ value }) =>').replace('"With power."', '`${value}`');
  const [other] = foundIn('berth_visit', ofOne).filter(({ code }) => code === 'reads-untied');
  expect(other!.fixes.map(({ title }) => title)).not.toContain('Tie it to shore_power too');
});
