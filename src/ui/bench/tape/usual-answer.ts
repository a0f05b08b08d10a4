/** What a service would answer a call that waits, for those who answer it by hand. */
import type { Value } from '@/core/form/value';
import type { DebugCore } from './state';

export function usualAnswers({ form: { session }, looking, tapes }: DebugCore) {
  /** What the service itself would answer the oldest call of this name that waits; null where it finds nothing or fails. */
  async function usualAnswer(name: string): Promise<Value> {
    const before = tapes()
      .slice(0, session.state.at + 1)
      .flat().length;
    const { answers: came } = await looking.inspect(
      { answers: true },
      { steps: [...session.state.steps.slice(0, session.state.at), { answer: name, usual: true }] },
    );
    const answered = came
      .flatMap(({ tape }) => tape)
      .slice(before)
      .find((entry) => entry.type === 'answered' && entry.name === name);
    return answered?.type === 'answered' ? answered.with : null;
  }

  return { usualAnswer };
}
