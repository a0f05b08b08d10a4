'use client';
/** What scripts cost, by step and by behaviour. */
import { Box, chakra } from '@chakra-ui/react';
import { costsOf, type Cost } from '@/core/debugging/cost';
import { FUEL_PER_RUN } from '@/core/limits';
import type { Names } from '@/core/tape/words';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';

export function CostPane({ bench, names }: { bench: Bench; names: Names }) {
  const answers = useRoom(bench.form.session, (state) => state.answers);
  const limit = useMaterial(bench).form.settings?.runLimit;
  const costs = costsOf(
    answers.map(({ tape }) => tape),
    limit,
  );
  const heaviest = costs.steps.indexOf(Math.max(...costs.steps));
  return (
    <Box fontSize="12.5px">
      <b>What scripts cost</b>
      <Box color="soft">
        Fuel of all runs so far; one run may use {FUEL_PER_RUN.toLocaleString('en')}. The heaviest
        step is {heaviest === 0 ? 'the opening' : `step ${heaviest}`} with{' '}
        {(costs.steps[heaviest] ?? 0).toLocaleString('en')}.
      </Box>
      <CostTable title="Behaviours" costs={costs.behaviours} bench={bench} names={names} />
      <CostTable title="Rules and handlers" costs={costs.ties} bench={bench} names={names} />
    </Box>
  );
}

function CostTable({
  title,
  costs,
  bench,
  names,
}: {
  title: string;
  costs: readonly Cost[];
  bench: Bench;
  names: Names;
}) {
  return (
    <chakra.table width="100%" mt="6px" style={{ borderCollapse: 'collapse' }}>
      <thead>
        <chakra.tr color="soft" textAlign="left">
          <chakra.th fontWeight={400}>{title}</chakra.th>
          <chakra.th fontWeight={400}>runs</chakra.th>
          <chakra.th fontWeight={400}>fuel</chakra.th>
          <chakra.th fontWeight={400}>most in a run</chakra.th>
        </chakra.tr>
      </thead>
      <tbody>
        {costs.map((cost, i) => (
          <chakra.tr key={i} borderTopWidth="1px" borderColor="line">
            <td>
              {cost.line === null ? (
                names.behaviour(cost.behaviour)
              ) : (
                <Button look="text" onClick={() => bench.code.goTo(cost.behaviour, cost.line!)}>
                  {cost.title}
                </Button>
              )}
            </td>
            <td>{cost.runs}</td>
            <td>{cost.fuel.toLocaleString('en')}</td>
            <td>
              {cost.most.toLocaleString('en')}
              {cost.near && <chakra.span color="bad"> near the limit</chakra.span>}
            </td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
