'use client';
/** From a daily need to a behaviour: the need, what it is picked from the form, and what comes of it, tried out at once. */
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import { partSeen, type Seen } from '@/core/scenario/seen';
import { made, starters } from '@/core/starters';
import {
  labelOf,
  isMissing,
  pickedIn,
  type Pick,
  type Picked,
  type Starter,
  type StarterSetting,
} from '@/core/starters/starter';
import {
  BareButton,
  Button,
  Checkboxes,
  Fieldset,
  Labelled,
  Line,
  Region,
  Select,
} from '../../kit';
import type { Bench } from '../create-bench';
import type { TriedOut } from './trying';
import { valueInWords } from '@/core/tape/words';
import { WindowTitle } from '../../window';
import { PaneHead } from '../common/pane-parts';

export function Starters({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const material = useMaterial(bench);
  const setting: StarterSetting = material;
  const [chosen, setChosen] = useState<Starter>(starters[0]!);
  const [picked, setPicked] = useState<Record<string, Picked>>({});
  const mine = picked[chosen.id] ?? {};
  const whole = useMemo(() => made(chosen, setting, mine), [chosen, setting, mine]);
  const offered = chosen.picks(setting, whole?.picked ?? mine);
  /** Where the last box was unticked, there is nothing to make. */
  const emptied = isMissing(offered)
    ? undefined
    : Object.keys(offered).find(
        (name) => offered[name]?.count === 'many' && mine[name]?.length === 0,
      );
  const result = emptied === undefined ? whole : null;
  const [tried, setTried] = useState<(TriedOut & { of: string }) | null>(null);
  useEffect(() => {
    if (result === null) return setTried(null);
    let here = true;
    // Somebody who ticks several boxes waits for the last.
    const timer = setTimeout(
      () =>
        void bench.behaviours
          .tryOut(result.text, result.ways, result.scenarios)
          .then((outcome) => here && setTried({ ...outcome, of: result.text })),
      150,
    );
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [bench, result]);
  // Until it is set in the common way it is shown as it was made.
  const shown =
    tried !== null && result !== null && tried.of === result.text
      ? tried.text
      : (result?.text ?? '');
  const insert = async () => {
    if (result === null) return;
    onDone();
    await bench.behaviours.takeStarter(result.title, shown, result.scenarios);
  };
  return (
    <Flex direction="column" height="100%" minH={0}>
      <PaneHead px="16px" py="10px" align="baseline" gap="12px">
        <WindowTitle>A behaviour for a need</WindowTitle>
        <chakra.span color="soft">
          Pick from the form; you get plain code, and nothing stays tied to this window.
        </chakra.span>
      </PaneHead>
      <Flex flex="1" minH={0}>
        <Box
          width="236px"
          flexShrink={0}
          overflowY="auto"
          py="8px"
          borderRightWidth="1px"
          borderColor="line"
          as="nav"
          aria-label="Needs"
        >
          {[...new Set(starters.map(({ group }) => group))].map((group) => (
            <Box key={group} mb="6px">
              <Box px="14px" color="soft" fontSize="12px">
                {group}
              </Box>
              {starters
                .filter((starter) => starter.group === group)
                .map((starter) => (
                  <BareButton
                    key={starter.id}
                    display="block"
                    width="100%"
                    textAlign="left"
                    px="14px"
                    py="2px"
                    bg={starter === chosen ? 'actGround' : undefined}
                    color={isMissing(starter.picks(setting, {})) ? 'soft' : 'ink'}
                    fontWeight={starter === chosen ? 620 : 400}
                    aria-current={starter === chosen || undefined}
                    _hover={{ bg: 'actGround' }}
                    onClick={() => setChosen(starter)}
                  >
                    {starter.need}
                  </BareButton>
                ))}
            </Box>
          ))}
        </Box>
        {isMissing(offered) ? (
          <Box p="16px" role="status">
            {offered}
          </Box>
        ) : (
          <>
            <Flex
              direction="column"
              gap="10px"
              width="290px"
              flexShrink={0}
              overflowY="auto"
              p="14px"
              borderRightWidth="1px"
              borderColor="line"
              role="group"
              aria-label="What to pick"
            >
              {Object.entries(offered).map(([name, pick]) => (
                <PickInput
                  key={name}
                  pick={pick}
                  value={name === emptied ? [] : pickedIn(offered, whole?.picked ?? mine, name)}
                  onPick={(values) =>
                    setPicked({
                      ...picked,
                      [chosen.id]: { ...whole?.picked, ...mine, [name]: values },
                    })
                  }
                />
              ))}
            </Flex>
            <Region flex="1" minW={0} p="14px" aria-label="What comes of it">
              {emptied !== undefined && (
                <Box role="status">Choose at least one of “{offered[emptied]?.label}”.</Box>
              )}
              {result !== null && (
                <>
                  <chakra.pre
                    fontFamily="mono"
                    fontSize="12px"
                    lineHeight="18px"
                    whiteSpace="pre-wrap"
                    bg="ground"
                    borderRadius="4px"
                    p="10px"
                    data-testid="starter-code"
                  >
                    {shown}
                  </chakra.pre>
                  <Box as="ul" mt="8px" listStyleType="none" color="soft" fontSize="13px">
                    {result.explanation.map((says) => (
                      <li key={says}>{says}</li>
                    ))}
                  </Box>
                  <Outcomes form={material.form} made={result} tried={tried} />
                </>
              )}
            </Region>
          </>
        )}
      </Flex>
      <Flex px="16px" py="10px" gap="8px" align="center" borderTopWidth="1px" borderColor="line">
        <Button look="go" disabled={result === null} onClick={() => void insert()}>
          Add it as a behaviour
        </Button>
        <Button onClick={onDone}>Cancel</Button>
        {result !== null && <Proof tried={tried} />}
      </Flex>
    </Flex>
  );
}

/** Whether the scenarios that come with it pass beside the other behaviours of the form. */
function Proof({ tried }: { tried: TriedOut | null }) {
  if (tried === null) return <chakra.span color="soft">trying it out…</chakra.span>;
  if (tried.failure !== null) return <chakra.span color="bad">× {tried.failure}</chakra.span>;
  const failing = tried.results.find(({ passed }) => !passed);
  if (tried.results.length === 0)
    return <chakra.span color="soft">no scenario comes with it</chakra.span>;
  if (failing === undefined)
    return (
      <chakra.span color="act">
        ✓{' '}
        {tried.results.length === 1
          ? 'its scenario passes'
          : `its ${tried.results.length} scenarios pass`}{' '}
        beside the other behaviours
      </chakra.span>
    );
  return (
    <chakra.span color="bad">× beside the other behaviours: {failing.misses[0]?.says}</chakra.span>
  );
}

function PickInput({
  pick,
  value,
  onPick,
}: {
  pick: Pick;
  value: readonly string[];
  onPick: (values: string[]) => void;
}) {
  if (pick.choices === null) {
    return (
      <Labelled label={pick.label}>
        <Line
          width="100%"
          value={value[0] ?? ''}
          onChange={(event) => onPick([event.target.value])}
        />
      </Labelled>
    );
  }
  if (pick.count === 'one') {
    return (
      <Labelled label={pick.label}>
        <Select
          width="100%"
          value={value[0] ?? ''}
          options={pick.choices}
          onChange={(event) => onPick([event.target.value])}
        />
      </Labelled>
    );
  }
  return (
    <Fieldset legend={pick.label}>
      <Box
        maxH="150px"
        overflowY="auto"
        borderWidth="1px"
        borderColor="line"
        borderRadius="4px"
        px="8px"
        py="3px"
        bg="field"
        fontSize="13px"
      >
        <Checkboxes options={pick.choices} chosen={value} onChoose={onPick} />
      </Box>
    </Fieldset>
  );
}

/** What it does in each way of filling the form in. */
function Outcomes({
  form,
  made: { ways, watched },
  tried,
}: {
  form: StarterSetting['form'];
  made: { ways: readonly { when: string }[]; watched: readonly string[] };
  tried: TriedOut | null;
}) {
  if (
    tried === null ||
    tried.failure !== null ||
    tried.ways.length !== ways.length ||
    ways.length === 0
  )
    return null;
  const states = watched.map((part) => ({
    part,
    states: tried.ways.map((way) => stateOf(form, part, way)),
  }));
  return (
    <chakra.table mt="12px" width="100%" borderCollapse="collapse" fontSize="13px">
      <chakra.caption textAlign="left" color="soft" captionSide="top">
        What it does
      </chakra.caption>
      <thead>
        <tr>
          <Head>When</Head>
          {states.map(({ part }) => (
            <Head key={part}>
              {part.startsWith('@')
                ? { '@replaced': 'instead of the form', '@parent': 'handed to the parent' }[part]
                : labelOf(form, part.replace(/\[\d+\]/, ''))}
            </Head>
          ))}
        </tr>
      </thead>
      <tbody>
        {ways.map(({ when }, i) => (
          <tr key={when}>
            <Data>{when}</Data>
            {states.map(({ part, states: all }) => (
              <Data key={part}>
                {tried.ways[i]!.refused !== null ? (
                  <chakra.span color="bad">refused: {tried.ways[i]!.refused}</chakra.span>
                ) : (
                  inWords(all[i]!, all)
                )}
              </Data>
            ))}
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}

function Head({ children }: { children: React.ReactNode }) {
  return (
    <chakra.th
      textAlign="left"
      fontWeight={400}
      color="soft"
      pr="10px"
      borderBottomWidth="1px"
      borderColor="line"
    >
      {children}
    </chakra.th>
  );
}

function Data({ children }: { children: React.ReactNode }) {
  return (
    <chakra.td pr="10px" py="2px" verticalAlign="top" borderBottomWidth="1px" borderColor="line">
      {children}
    </chakra.td>
  );
}

/** The aspects of a part as words, in the order in which they are told. */
function stateOf(
  form: StarterSetting['form'],
  part: string,
  { seen, toParent }: { seen: Seen; toParent: TriedOut['ways'][number]['toParent'] },
): Record<string, string> {
  if (part === '@replaced') return { replaced: seen.replaced?.text ?? 'the form stays' };
  if (part === '@parent')
    return {
      parent:
        toParent.length === 0
          ? 'nothing'
          : toParent.map(({ set, to }) => `${set}: ${valueInWords(to)}`).join(', '),
    };
  const state = partSeen(seen, form, part);
  if (state === undefined) return { shown: 'not there' };
  return {
    shown: state.shown ? 'shown' : 'hidden',
    ...(state.required === undefined
      ? {}
      : { required: state.required ? 'required' : 'not required' }),
    locked: state.locked ? 'locked' : 'open',
    ...(state.value === undefined ? {} : { value: `holds ${valueInWords(state.value)}` }),
    ...(state.options == null ? {} : { options: `${state.options.length} offered` }),
    ...(state.hint === undefined
      ? {}
      : { hint: state.hint === null ? 'no hint' : `“${state.hint}”` }),
    ...(state.warning === undefined
      ? {}
      : { warning: state.warning === null ? 'no warning' : `! “${state.warning}”` }),
    ...(state.problem === undefined
      ? {}
      : { problem: state.problem === null ? 'no problem' : `× “${state.problem}”` }),
  };
}

/** Only what differs between the ways is worth reading. */
function inWords(state: Record<string, string>, all: readonly Record<string, string>[]): string {
  const told = Object.entries(state).filter(([aspect, text]) =>
    all.some((other) => other[aspect] !== text),
  );
  return (
    told.length > 0 ? told.map(([, text]) => text) : [state.shown ?? Object.values(state)[0] ?? '']
  ).join(', ');
}
