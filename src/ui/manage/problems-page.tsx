'use client';
/** Everything that is wrong in the workspace; the server checks form by form, and what was found is shown meanwhile. */
import { counted } from '@/core/counted';
import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useWorkspaceCheck } from '../check-workspace';
import { CutShort } from '../cut-short';
import { Button, Notice } from '../kit';
import { PageHead } from '../page-head';
import { addressOf, ProblemList } from '../problem-list';

export function ProblemsPage({
  title,
  forms,
}: {
  title: string;
  forms: { name: string; title: string }[];
}) {
  const { problems, done, of, over, cutShort, says, runAgain } = useWorkspaceCheck(true);
  const router = useRouter();
  const found = counted(problems.length, 'problem');
  return (
    <>
      <PageHead workspace={title} section="problems" title="Problems" />
      <Box as="main" px="16px" py="14px" maxW="1000px">
        {says !== null ? (
          <Notice tone="error">{says}</Notice>
        ) : (
          <Flex gap="14px" align="baseline" pb="6px">
            <Box
              role="status"
              color={over && problems.length + cutShort.length === 0 ? 'act' : 'soft'}
            >
              {over
                ? problems.length === 0
                  ? cutShort.length === 0
                    ? `✓ nothing found in ${forms.length} forms`
                    : 'nothing found so far'
                  : found
                : `Checking types, mistakes and scenarios: ${done} of ${Math.max(of, forms.length)} forms, ${found} so far…`}
            </Box>
            <Button look="text" disabled={!over} onClick={runAgain}>
              Run again
            </Button>
          </Flex>
        )}
        <CutShort forms={over ? cutShort : []} />
        <ProblemList
          problems={problems}
          formTitle={(form) => forms.find(({ name }) => name === form)?.title ?? form}
          onGo={(problem) => router.push(addressHere(addressOf(problem)))}
        />
      </Box>
    </>
  );
}
