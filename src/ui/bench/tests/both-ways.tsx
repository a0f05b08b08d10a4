'use client';
/** Each option and back again: what does not come back, differs between load and by hand, or throws. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import { drivingFields, openingInWords, type BothWaysFinding } from '@/core/testing/both-ways';
import type { Value } from '@/core/form/value';
import { Button } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import type { Bench } from '../create-bench';
import { useNames, useMaterial } from '../common/use-bench';
import { Progress } from './progress';
import { Shown } from './value-input';

const KINDS: Readonly<Record<BothWaysFinding['is'], string>> = {
  'not back': 'does not come back',
  'at load': 'differs when the form is opened with it',
  threw: 'throws',
};

export function BothWaysTab({ bench }: { bench: Bench }) {
  const { underway, findings } = useHeldWhilePressed(useStore(bench.tests.store).bothWays);
  const { form, people } = useMaterial(bench);
  const behaviours = useRoom(bench.code, (state) => state.behaviours);
  const names = useNames(bench);
  const fields = drivingFields(form, behaviours);
  return (
    <>
      <Box color="soft" mb="6px">
        From every option of every field to every other and back again, and to numbers around those
        in the code: on a new form for each set of roles and on saved ones, set by hand and opened
        with it.
      </Box>
      {fields.length === 0 ? (
        <Box>This form has no field with options to choose from.</Box>
      ) : (
        <Button
          look="go"
          disabled={underway !== null}
          onClick={() => void bench.tests.bothWays.run()}
        >
          Try {fields.length === 1 ? 'one field' : `${fields.length} fields`}
        </Button>
      )}
      {underway !== null && (
        <Progress bench={bench} underway={underway} what="fields and records" />
      )}
      {findings !== null && (
        <Box role="status" my="8px">
          {findings.length === 0
            ? 'Everything comes back, and is the same at load as by hand.'
            : `${findings.length} found. Some of it may be meant.`}
        </Box>
      )}
      <Box as="ul" listStyleType="none">
        {(findings ?? []).map(({ finding, openings }, i) => (
          <Box as="li" key={i} py="5px" borderTopWidth="1px" borderColor="line">
            <Flex gap="8px" align="baseline" wrap="wrap">
              <Box flex="1" minW="200px">
                <b>{names.part(finding.field)}</b> set{' '}
                {finding.steps.length > 2 && (
                  <>
                    from <Shown value={finding.from} />{' '}
                  </>
                )}
                to <Shown value={finding.option} />
                {finding.is === 'at load' ? ' ' : ' and back '}
                <chakra.span color={finding.is === 'threw' ? 'bad' : 'said'}>
                  {KINDS[finding.is]}
                </chakra.span>{' '}
                <chakra.span color="soft">
                  ({openings.map((one) => openingInWords(one, people)).join('; ')})
                </chakra.span>
              </Box>
              <Button
                look="text"
                aria-label={`Open: ${names.part(finding.field)} ${KINDS[finding.is]}`}
                onClick={() => void bench.form.show(finding.open, finding.steps)}
              >
                open
              </Button>
              <Button
                look="text"
                aria-label={`Keep as a scenario: ${names.part(finding.field)} ${KINDS[finding.is]}`}
                onClick={() => void bench.tests.bothWays.keep(finding)}
              >
                keep as a scenario
              </Button>
            </Flex>
            {finding.is === 'threw'
              ? finding.says.map((text) => (
                  <Box key={text} pl="14px" color="bad">
                    {text}
                  </Box>
                ))
              : finding.changes.slice(0, 6).map(({ part, aspect, before, now }) => (
                  <Box key={`${part}.${aspect}`} pl="14px" fontSize="13px">
                    {names.part(part)} <chakra.span color="soft">{aspect}</chakra.span>{' '}
                    <Brief value={before} /> → <Brief value={now} />
                  </Box>
                ))}
          </Box>
        ))}
      </Box>
    </>
  );
}

/** Rows are many; how many says enough here. */
function Brief({ value }: { value: Value }) {
  return Array.isArray(value) && value.some((one) => typeof one === 'object') ? (
    <>{counted(value.length, 'row')}</>
  ) : (
    <Shown value={value} />
  );
}
