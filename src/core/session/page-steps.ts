/** Turning to another page, as a person: forward turns check the page left, `pageChange` handlers may stop it. */
import { check, setFault } from './checking';
import type { Pages } from './pages';
import { OF_FORM, type Progress } from './progress';
import type { Settling } from './settling';
import type { Situation } from './situation';
import type { State } from './state';
import type { Stopping } from './stopping';
import type { TapeWriter } from './tape-writer';
import type { Time } from './time';

export class PageSteps {
  constructor(
    private readonly state: State,
    private readonly situation: Situation,
    private readonly progress: Progress,
    private readonly settling: Settling,
    private readonly stopping: Stopping,
    private readonly time: Time,
    private readonly pages: Pages,
    private readonly tape: TapeWriter,
    /** Whether turning forward checks the page left. */
    private readonly checks: boolean,
  ) {}

  /** Why it cannot be done, or null. */
  turnTo(name: string, cause: number | null): string | null {
    const to = this.state.parts.byName.get(name);
    if (to === undefined || to.sort !== 'page') return `there is no page "${name}"`;
    if (!to.onScreen) return `${to.label} is hidden`;
    const from = this.situation.page;
    if (from === to || from === null) return null;
    const forward = this.pages.all.indexOf(to) > this.pages.all.indexOf(from);
    if (!this.settling.settle(cause)) return null;
    if (forward && this.checks) {
      const faults = check(this.state, from);
      this.tape.add(cause, { type: 'checked', faults });
      if (faults.length > 0) return null;
    }
    let stopped = false;
    this.progress.queue.push({
      ...OF_FORM,
      type: 'pageChange',
      by: 'person',
      cause,
      extra: { from: from.name, to: to.name },
      stop: (says, part, readsOf) => {
        stopped = true;
        if (part?.sort === 'field') setFault(this.state, part, says, readsOf);
        else this.progress.message({ text: says, tone: 'error', behaviour: '' });
      },
    });
    const inVain = this.settling.settle(cause) ? this.time.waitOut(cause) : 'unsettled';
    this.stopping.end();
    if (inVain !== null && inVain !== 'unsettled')
      this.progress.message({ text: inVain, tone: 'error', behaviour: '' });
    if (inVain === null && !stopped) this.pages.turnTo(to, cause, null);
    return null;
  }
}
