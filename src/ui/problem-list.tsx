'use client';
/** Problems as a list in which each leads to its place. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import type { Problem } from '@/core/problems/problems';
import { Button } from './kit';

const SORTS = { types: 'types', mistake: 'mistake', scenario: 'scenario', found: 'found' } as const;

export function ProblemList({
  problems,
  formTitle,
  onGo,
}: {
  problems: readonly Problem[];
  formTitle?: (form: string) => string;
  onGo: (problem: Problem) => void;
}) {
  return (
    <Box as="ul" listStyleType="none">
      {problems.map((problem, i) => (
        <Flex
          as="li"
          key={i}
          gap="10px"
          py="5px"
          borderTopWidth="1px"
          borderColor="line"
          align="baseline"
        >
          <chakra.span
            color={problem.severity === 'error' ? 'bad' : 'said'}
            width="86px"
            flexShrink={0}
            fontSize="13px"
          >
            {problem.severity === 'error' ? '×' : '!'} {SORTS[problem.sort]}
          </chakra.span>
          <Box flex="1" minW={0}>
            <Button look="text" whiteSpace="normal" textAlign="left" onClick={() => onGo(problem)}>
              {formTitle !== undefined && problem.form !== '' && `${formTitle(problem.form)}, `}
              {placeInWords(problem)}
            </Button>
            <Box fontSize="13px">{problem.says}</Box>
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

function placeInWords({ at }: Problem): string {
  switch (at.is) {
    case 'behaviour':
      return `${at.title}, line ${at.line}`;
    case 'form':
      return 'the form as a whole';
    case 'part':
      return `part ${at.part}`;
    case 'service':
      return `service ${at.title}, script of ${at.called}, line ${at.line}`;
    case 'finding':
      return at.place;
    case 'scenario':
      return `scenario “${at.title}”, step ${at.step}`;
  }
}

/** The address on the bench that leads to a problem. */
export function addressOf({ form, at }: Problem): string {
  if (at.is === 'service') return `/services/${at.service}`;
  const query: Record<string, string> =
    at.is === 'behaviour'
      ? { behaviour: at.name, line: String(at.line) }
      : at.is === 'part'
        ? { part: at.part }
        : at.is === 'scenario'
          ? { scenario: at.name }
          : at.is === 'finding'
            ? { finding: at.key }
            : {};
  const asked = new URLSearchParams(query).toString();
  // What belongs to several forms is looked at on the bench of one of them.
  return form === '' && at.is === 'behaviour'
    ? `/scripts/${at.name}?${asked}`
    : `/bench/${form}?${asked}`;
}
