/** What somebody does about a difference: looks at it in both versions, accepts it, keeps it. Loaded by whoever does. */
import { asAccepted, type AcceptedBy } from '@/core/compare/accepted';
import { differenceAsScenario } from '@/core/compare/as-scenario';
import type { Difference } from '@/core/compare/difference';
import { ASKED_ABOUT } from '@/core/debugging/question';
import type { Scenario } from '@/core/scenario/definition';
import type { KeptFilling } from '@/core/scenario/kept-steps';
import { openOf } from '@/core/scenario/recorded';
import { namesFor } from '@/core/tape/words';
import type { FormerVersion } from '@/core/workspace/release-changes';
import { addressHere } from '../../address';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { Screen } from '../common/screen';
import type { FormRoom } from '../form/form';
import { Beside } from './beside';
import { materialOf } from './comparing';

export interface Answering {
  core: BenchCore;
  screen: Screen;
  code: Code;
  form: FormRoom;
}

/** What was accepted then; null where that was refused, and people are told. */
export async function accept(
  { core, screen, code }: Answering,
  difference: Difference,
  former: FormerVersion | null,
): Promise<AcceptedBy | null> {
  const sources = { before: former?.sources ?? [], after: code.scripts.sources() };
  const reply = await core.save<AcceptedBy>(
    'POST',
    core.pathOf('accepted'),
    asAccepted(difference, sources),
  );
  if (reply.ok) return reply.body;
  screen.complain(reply.says);
  return null;
}

/** Whether it is accepted no more. */
export async function takeBack({ core, screen }: Answering, { key }: AcceptedBy): Promise<boolean> {
  const reply = await core.save('DELETE', core.pathOf(`accepted/${key}`));
  // Somebody else may have taken it back.
  if (reply.ok || reply.status === 404) return true;
  screen.complain(reply.says);
  return false;
}

/** The scenario that expects what either version does; null where there is none, and people are told. */
export async function scenarioOf(
  { core, screen, code }: Answering,
  difference: Difference,
  side: 'before' | 'after',
): Promise<Scenario | null> {
  const titles = code.scripts.sources().map(({ name }) => ({ name, title: name }));
  const names = namesFor(core.form(), titles, core.people);
  const made = differenceAsScenario(difference, side, names, core.cast().records);
  if (made !== null) return core.withSample(made);
  screen.complain('A scenario cannot expect this.');
  return null;
}

/** The former version beside the live form, which goes to where they differ. */
export async function standBeside(
  answering: Answering,
  former: FormerVersion,
  difference: Difference | null,
): Promise<Beside> {
  const { core, form } = answering;
  const material = await materialOf(former, core.languageWorker());
  if (difference !== null) await showWay(answering, difference);
  return new Beside(form, former, material, difference, core.form());
}

async function showWay(
  { core, screen, form }: Answering,
  { part, aspect, way: { opening, steps } }: Difference,
): Promise<void> {
  const { record } = opening;
  if (record !== null && !core.cast().records.some(({ id }) => id === record.id))
    core.putRecord(record);
  const isAsked = ASKED_ABOUT.includes(aspect);
  const asked = part.startsWith('@') ? null : { part, aspect: isAsked ? aspect : null };
  await form.show(openOf(opening), steps, steps.length, asked);
  if (asked !== null) form.reveal(part);
  else screen.showForm();
}

/** Opens what somebody did as a recording of its own, in the release that it was done in. */
export async function openFilling({ core, screen }: Answering, { id }: KeptFilling): Promise<void> {
  const reply = await core.save<{ recording: number }>(
    'POST',
    core.pathOf(`kept/${id}/recording`),
    {},
  );
  if (!reply.ok) return screen.complain(reply.says);
  const address = `/bench/${core.form().name}?recording=${reply.body.recording}`;
  window.open(addressHere(address), '_blank', 'noopener');
}
