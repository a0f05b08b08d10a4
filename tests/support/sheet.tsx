/** The form as people meet it, over a real session. */
import { act } from '@testing-library/react';
import { drawn } from './drawn';
import { direct, type Setting } from './hosts';
import type { Step } from '@/core/session/step';
import { FormSheet } from '@/ui/form/sheet';

const LISTENS = { input: [], focus: [], blur: [] };

/** A sheet whose steps are done by the session it shows. */
export function sheetOf(setting: Setting, more: { frozen?: boolean; depth?: number } = {}) {
  const use = direct(setting);
  const steps: Step[] = [];
  const element = () => (
    <FormSheet
      form={setting.form}
      tables={setting.tables ?? []}
      seen={use.seen}
      listens={LISTENS}
      onStep={(step) => {
        steps.push(step);
        does(step);
      }}
      {...more}
    />
  );
  const does = (step: Step) => {
    use.do(step);
    act(() => view.rerender(element()));
  };
  const view = drawn(element());
  return { steps, does, use };
}
