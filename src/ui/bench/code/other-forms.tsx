'use client';
/** The other forms that run with a shared script, with what is wrong in them since it was last saved. */
import { useMaterial } from '../common/use-bench';
import { Box, chakra } from '@chakra-ui/react';
import { isModule } from '@/core/script/script-name';
import { addressHere } from '../../address';
import { useWorkspaceCheck } from '../../check-workspace';
import { Button } from '../../kit';
import { addressOf } from '../../problem-list';
import type { Behaviour } from './state';
import type { Bench } from '../create-bench';

/** Problems shown at once; the page of problems has all. */
const SHOWN = 4;

export function OtherForms({ bench, script }: { bench: Bench; script: Behaviour }) {
  const here = useMaterial(bench).form.name;
  const { revision, saving, name } = script;
  // Each form is checked with its scenarios, by the server, once what is typed is saved.
  const { forms, problems, over, cutShort, says } = useWorkspaceCheck(
    revision > 0 && saving.state === 'saved',
    revision,
    name,
  );
  const others = forms.filter((form) => form.name !== here);
  const wrong = problems.filter(({ form }) => others.some((other) => other.name === form));
  const titleOf = (form: string) => others.find((other) => other.name === form)?.title ?? form;
  return (
    <Box role="group" aria-label="In other forms">
      {says ??
        (!over
          ? 'Checking the other forms…'
          : others.length === 0
            ? `No other form ${isModule(name) ? 'uses it' : 'has it'}.`
            : `Also in ${others.map(({ title }) => title).join(', ')}: `)}
      {over && cutShort.length > 0 && (
        <chakra.span>not checked to the end yet, and tried again by itself </chakra.span>
      )}
      {over && others.length > 0 && wrong.length === 0 && cutShort.length === 0 && (
        <chakra.span color="act">✓ nothing found there</chakra.span>
      )}
      {wrong.slice(0, SHOWN).map((problem, i) => (
        <Box key={i}>
          <chakra.span color={problem.severity === 'error' ? 'bad' : 'said'}>
            {problem.severity === 'error' ? '×' : '!'}{' '}
          </chakra.span>
          <Button
            look="text"
            onClick={() => window.open(addressHere(addressOf(problem)), '_blank', 'noopener')}
          >
            {titleOf(problem.form)}
            {problem.at.is === 'scenario' && `, scenario “${problem.at.title}”`}
            {problem.at.is === 'behaviour' && `, ${problem.at.title}, line ${problem.at.line}`}
          </Button>
          : {problem.says}
        </Box>
      ))}
      {wrong.length > SHOWN && <Box>and {wrong.length - SHOWN} more, on the page of problems</Box>}
    </Box>
  );
}
