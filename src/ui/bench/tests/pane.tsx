'use client';
/** The tests of a form: its scenarios, what the search finds, what changed for people, a grid, mutants, and what of the code is reached. */
import { Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import { Notice, Region } from '../../kit';
import type { Bench } from '../create-bench';
import { TabStrip } from '../common/tab-strip';
import { CoverageTab } from './coverage';
import { GridTab } from './grid';
import { MutationTab } from './mutation';
import { ScenariosTab } from './scenarios';
import { ChangesTab } from '../changes/pane';
import { FaultsTab } from '../faults/pane';
import type { TestsTab } from './state';

const TABS: readonly { key: TestsTab; label: string }[] = [
  { key: 'scenarios', label: 'Scenarios' },
  { key: 'faults', label: 'Faults' },
  { key: 'changes', label: 'Changes' },
  { key: 'grid', label: 'Outcome grid' },
  { key: 'mutation', label: 'Mutation' },
  { key: 'coverage', label: 'Coverage' },
];

export function TestsPane({ bench }: { bench: Bench }) {
  const { tab, says } = useStore(bench.tests.store);
  return (
    <Flex direction="column" flex="1" minH={0}>
      <TabStrip
        label="Tests"
        tabs={TABS}
        chosen={tab}
        fontSize="13.5px"
        onChoose={(key) => bench.tests.open(key)}
        gap="14px"
        px="14px"
        pt="6px"
        borderBottomWidth="1px"
        overflowX="auto"
      />
      <Region
        flex="1"
        minH={0}
        px="14px"
        py="10px"
        aria-label={TABS.find(({ key }) => key === tab)!.label}
      >
        {says !== null && (
          <Notice tone="error" mb="8px">
            {says}
          </Notice>
        )}
        {tab === 'scenarios' && <ScenariosTab bench={bench} />}
        {tab === 'grid' && <GridTab bench={bench} />}
        {tab === 'faults' && <FaultsTab bench={bench} />}
        {tab === 'changes' && <ChangesTab bench={bench} />}
        {tab === 'mutation' && <MutationTab bench={bench} />}
        {tab === 'coverage' && <CoverageTab bench={bench} />}
      </Region>
    </Flex>
  );
}
