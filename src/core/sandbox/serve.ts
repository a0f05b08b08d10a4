/** The worker's half: takes requests, runs them in a sandbox, replies. Started by the thin workers of each host. */
import type { Line } from '../wire/line';
import type { QuickJSWASMModule } from 'quickjs-emscripten-core';
import type { Answer, TimedStep } from '../session/step';
import { startModule } from './quickjs';
import { heart } from './heart';
import type { Image } from './image';
import { RequestSchema, type Request } from './protocol';
import type { BriefAnswer, Reply } from './reply';
import { MachineDied } from './machine';
import { needsTemporal, Sandbox } from './sandbox';

/** `imageOf` gives the image of a machine with or without Temporal, where the host has one. */
export function serve(
  reply: (message: Reply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  let sandbox: { withTemporal: boolean; watched: boolean; machine: Sandbox } | null = null;
  // The first machine's module starts before anybody asks.
  let first: Promise<QuickJSWASMModule> | null = startModule();
  // One after the other, since loading waits for a machine to start.
  let last: Promise<void> = Promise.resolve();

  async function machineFor(request: Request & { do: 'load' }): Promise<Sandbox> {
    const withTemporal = needsTemporal(request.material);
    const { watched } = request;
    // One with Temporal serves forms that do not name it as well; it is only larger.
    const lacksTemporal = sandbox !== null && withTemporal && !sandbox.withTemporal;
    if (sandbox === null || sandbox.watched !== watched || lacksTemporal) {
      const wasm = await (first ?? startModule());
      first = null;
      const machine = new Sandbox(wasm, {
        temporal: withTemporal,
        alive: heart(reply),
        image: imageOf(withTemporal),
        ...(watched ? { tell: teller(reply) } : {}),
      });
      sandbox = { withTemporal, watched, machine };
    }
    return sandbox.machine;
  }

  async function handle(message: unknown): Promise<void> {
    const parsed = RequestSchema.safeParse(message);
    if (!parsed.success) {
      reply({
        type: 'failed',
        id: (message as { id?: number } | null)?.id ?? -1,
        how: `not a request: ${parsed.error.message}`,
      });
      return;
    }
    const { data: request } = parsed;
    const { id } = request;
    try {
      if (request.do === 'load') {
        const machine = await machineFor(request);
        reply({ type: 'alive' });
        reply({ type: 'listens', id, listens: machine.load(request.material, request.watched) });
        return;
      }
      const { machine } = sandbox!;
      if (request.do === 'inspect') {
        const { opening, steps, wanted } = request;
        reply({ type: 'inspected', id, inspection: machine.inspect(opening, steps, wanted) });
        return;
      }
      if (request.do === 'try') {
        const { opening, steps, mutant, reachedOf } = request;
        const tried = [
          machine.open(opening, mutant),
          ...steps.map((step) => machine.step(step as TimedStep)),
        ];
        reply({ type: 'tried', id, answers: tried, reached: machine.reached(reachedOf) });
        return;
      }
      if (request.do === 'identify') {
        machine.identify(request.newId);
        reply({ type: 'answers', id, answers: [] });
        return;
      }
      const answers =
        request.do === 'step'
          ? [machine.step(request.step as TimedStep)]
          : [
              machine.open(request.opening),
              ...request.steps.map((step) => machine.step(step as TimedStep)),
            ];
      // Whoever saves what comes out looks at nothing on the way.
      reply({
        type: 'answers',
        id,
        answers: request.do === 'play' && request.brief ? answers.map(inBrief) : answers,
      });
    } catch (caught) {
      sandbox = null;
      reply({ type: caught instanceof MachineDied ? 'died' : 'failed', id, how: String(caught) });
    }
  }

  return (message) => (last = last.then(() => handle(message)));
}

/** What a submission is judged by. */
function inBrief({ refused, submit, toParent, errors }: Answer): BriefAnswer {
  return { refused, submit, toParent, errors };
}

/** Passes the machine's whereabouts on, but not each round of a loop. */
function teller(reply: (message: Reply) => void): (behaviour: string, line: Line) => void {
  let last = '';
  let at = 0;
  const seen = new Set<string>();
  return (behaviour, line) => {
    const place = `${behaviour}:${line}`;
    const now = Date.now();
    if (place === last || (seen.has(place) && now - at < 5)) return;
    seen.add(place);
    [last, at] = [place, now];
    reply({ type: 'at', behaviour, line });
  };
}
