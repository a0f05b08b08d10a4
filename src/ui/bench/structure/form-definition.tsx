'use client';
/** How the form as a whole is defined. */
import { useMaterial } from '../common/use-bench';
import { Box, Flex } from '@chakra-ui/react';
import type { Bench } from '../create-bench';
import { Committed } from './inputs';
import { LaunchParameters } from './launch-parameters';
import { useNumbers } from '../../writing';
import { Checkbox } from '../../kit';

/** What is said of the form as a whole, while no part is chosen. */
export function FormDefinition({ bench }: { bench: Bench }) {
  const { form } = useMaterial(bench);
  const numbers = useNumbers();
  const settings = form.settings ?? {};
  const commitLimit = (text: string) => {
    const limit = text.trim() === '' ? undefined : numbers.read(text);
    if (limit === null) return false;
    const { runLimit: _, ...rest } = settings;
    return bench.structure.edit({
      do: 'changeForm',
      settings: limit === undefined ? rest : { ...rest, runLimit: limit },
    });
  };
  return (
    <Flex direction="column" gap="8px" fontSize="13.5px">
      <Box color="soft">Choose a part to see and change how it is defined.</Box>
      <Committed
        label="Title of the form"
        value={form.title}
        onCommit={(title) =>
          title.trim() !== '' && bench.structure.edit({ do: 'changeForm', title })
        }
      />
      <Committed
        label="How often one handler or rule may run in a step (100)"
        width="100px"
        value={settings.runLimit === undefined ? '' : String(settings.runLimit)}
        onCommit={commitLimit}
      />
      <Checkbox
        label="a page is checked when it is left"
        on={settings.checkPages !== false}
        onSet={(checks) => {
          const { checkPages: _, ...rest } = settings;
          bench.structure.edit({
            do: 'changeForm',
            settings: checks ? rest : { ...rest, checkPages: false },
          });
        }}
      />
      <LaunchParameters bench={bench} parameters={form.launch ?? []} />
    </Flex>
  );
}
