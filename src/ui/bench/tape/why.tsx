'use client';
/** The answer to why a part is as it is, and what else could have said something of it; every cause can be asked in turn. */
import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { Form } from '@/core/form/definition';
import type { Value } from '@/core/form/value';
import { lineSince } from '@/core/debugging/changed-line';
import type { Context, Piece, Sentence } from '@/core/debugging/pieces';
import { askedOf, invariantIn } from '@/core/debugging/question';
import { questionInWords } from '@/core/debugging/standing-words';
import { leftOutInWords, whyNotInWords } from '@/core/debugging/why-not-words';
import { decisionInWords } from '@/core/debugging/why-words';
import { baseName } from '@/core/script/script-name';
import type { PartState } from '@/core/session/step';
import { addressNow, partSeen, type Seen } from '@/core/scenario/seen';
import type { Tape } from '@/core/tape/tape';
import { withPlaces, type Names } from '@/core/tape/words';
import { placeOf, type Line } from '@/core/wire/line';
import { useDates } from '../../writing';
import { BareButton, Button, Mono, Select } from '../../kit';
import { useAnswer } from '../../server-data';
import type { Revision } from '../code/history';
import type { Bench } from '../create-bench';

export function WhyPane({
  bench,
  form,
  seen,
  tape,
  names,
  who,
}: {
  bench: Bench;
  form: Form;
  seen: Seen;
  tape: Tape;
  names: Names;
  who: string;
}) {
  const { question, decision, whyNot, notOffered, trail, asking } = useStore(bench.tape.store);
  if (question === null)
    return (
      <Box color="soft" fontSize="12.8px">
        <b>Why?</b> Ask about any part: press ? beside its name in the form, or its label in the
        outline.
      </Box>
    );
  const context: Context = { names: withPlaces(names, seen.rows), who, tape };
  const address = addressNow(seen, question.part);
  const state = partSeen(seen, form, address);
  const offered = askedOf(question.part, state);
  // What was asked on the way, such as a sum, is none of those that are offered.
  const aspects = offered.includes(question.aspect) ? offered : [question.aspect, ...offered];
  const isInvariant = invariantIn(question.aspect) !== null;
  const isPart = !question.part.startsWith('@');
  const isHiddenAround = state?.shown === true && state.onScreen === false;
  const now = state?.[question.aspect as keyof PartState];
  return (
    <Box fontSize="12.8px" lineHeight="19px">
      <Flex gap="6px" align="center" mb="3px" flexWrap="wrap">
        {trail.length > 0 && (
          <Button look="text" onClick={bench.tape.backInTrail} title="The question before">
            ‹ back
          </Button>
        )}
        <b>{questionInWords(context.names, question, decision?.value ?? (now as Value) ?? null)}</b>
        {isPart && <Mono color="soft">{address}</Mono>}
        {aspects.length > 1 && !isInvariant && (
          <Select
            aria-label="Which aspect"
            fontSize="12px"
            py="0"
            value={question.aspect}
            options={aspects.map((key) => ({ key, label: key }))}
            onChange={(event) =>
              void bench.tape.askWhy({ ...question, aspect: event.target.value }, true)
            }
          />
        )}
        {isPart && (
          <Button
            look="text"
            ml="auto"
            title="List only what touched this part"
            onClick={() => bench.tape.filter({ part: question.part })}
          >
            only this part
          </Button>
        )}
      </Flex>
      {isHiddenAround && question.aspect === 'shown' && (
        <Box mb="3px">
          It is{' '}
          <Ask
            onClick={() =>
              void bench.tape.askWhy({ ...question, aspect: 'onScreen', before: null }, true)
            }
          >
            off screen
          </Ask>{' '}
          all the same.
        </Box>
      )}
      {asking && decision === null && <Box color="soft">Running it again…</Box>}
      {decision !== null && (
        <Box as="ul" listStyleType="none" pl="10px" borderLeftWidth="1px" borderColor="line">
          {decisionInWords(decision, context).map((sentence, i) => (
            <li key={i}>
              <Pieces bench={bench} sentence={sentence} />
            </li>
          ))}
          {decision.entry !== null && (
            <li>
              <Ask
                onClick={() =>
                  void bench.tape.standOn({
                    entry: decision.run?.entry ?? decision.entry!,
                    detail: null,
                  })
                }
              >
                Stand there
              </Ask>
              {decision.line !== null && decision.run !== null && (
                <Since
                  key={`${decision.run.behaviour} ${decision.line}`}
                  bench={bench}
                  line={decision.line}
                  behaviour={decision.run.behaviour}
                />
              )}
            </li>
          )}
        </Box>
      )}
      {decision !== null && !isInvariant && (
        <Box mt="6px">
          <b>Why not otherwise?</b>
          {whyNot.length === 0 && notOffered.length === 0 && !asking && (
            <Box color="soft">No other line says anything of it.</Box>
          )}
          <Box as="ul" listStyleType="none" pl="10px">
            {whyNot.map((one, i) => (
              <Box as="li" key={i} mt="2px">
                {whyNotInWords(one, context).map((sentence, j) => (
                  <Box key={j} pl={j > 0 ? '12px' : undefined}>
                    <Pieces bench={bench} sentence={sentence} />
                  </Box>
                ))}
              </Box>
            ))}
            {notOffered.map((one) => (
              <Box as="li" key={one.key} mt="2px">
                <Pieces bench={bench} sentence={leftOutInWords(one)} />
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** Since which revision the deciding line is as it is; read when somebody asks. */
function Since({ bench, line, behaviour }: { bench: Bench; line: Line; behaviour: string }) {
  const [wanted, setWanted] = useState(false);
  const place = placeOf(line, behaviour);
  const script = bench.code.scripts.sources().find(({ name }) => baseName(name) === place.script);
  if (script === undefined) return null;
  return wanted ? (
    <SinceWhen
      bench={bench}
      name={script.name}
      text={script.text.split('\n')[place.line - 1] ?? ''}
    />
  ) : (
    <>
      {' · '}
      <Ask onClick={() => setWanted(true)}>Since when?</Ask>
    </>
  );
}

function SinceWhen({ bench, name, text }: { bench: Bench; name: string; text: string }) {
  const dates = useDates();
  const { data: revisions, error } = useAnswer<Revision[]>(
    `${bench.core.pathOfScript(name)}/revisions`,
    text,
  );
  if (error !== null) return <Box color="bad">{error.message}</Box>;
  if (revisions === undefined) return <Box color="soft">Reading the revisions…</Box>;
  const since = lineSince(
    text,
    revisions.map((one) => one.text),
  );
  const { people } = bench.core;
  const by = (key: string | null) => people.find((person) => person.key === key)?.name ?? key;
  if (since === null) return <Box>The line is not saved yet.</Box>;
  const { revision, savedBy, savedAt } = revisions[since.at]!;
  return (
    <Box>
      {since.always
        ? 'The line has been as it is from the start'
        : `Revision ${revision} made the line what it is`}
      , {dates.moment(savedAt)}
      {savedBy === null ? '' : `, ${by(savedBy)}`}.{' '}
      <Ask
        onClick={() => {
          bench.code.goTo(name, 1);
          bench.screen.showPane('history');
        }}
      >
        See the revisions
      </Ask>
    </Box>
  );
}

function Pieces({ bench, sentence }: { bench: Bench; sentence: Sentence }) {
  return sentence.map((piece, i) =>
    typeof piece === 'string' ? (
      <span key={i}>{piece}</span>
    ) : (
      <Ask key={i} onClick={() => follow(bench, piece)}>
        {piece.text}
      </Ask>
    ),
  );
}

function follow(bench: Bench, piece: Exclude<Piece, string>): void {
  if ('line' in piece) bench.code.goTo(piece.line.script, piece.line.line);
  else if ('ask' in piece) void bench.tape.askWhy(piece.ask, true);
  else void bench.tape.standOn({ entry: piece.entry, detail: null });
}

function Ask({ children, onClick }: { children: React.ReactNode; onClick: () => void }) {
  return (
    <BareButton
      color="act"
      textDecoration="underline"
      textUnderlineOffset="3px"
      textAlign="left"
      onClick={onClick}
    >
      {children}
    </BareButton>
  );
}
