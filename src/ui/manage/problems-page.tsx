'use client';
/** Everything that is wrong in the workspace; the server checks form by form, and what was found is shown meanwhile. */
import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useWorkspaceCheck } from '../check-workspace';
import { Notice } from '../kit';
import { PageHead } from '../page-head';
import { addressOf, ProblemList } from '../problem-list';

export function ProblemsPage({
  title,
  forms,
}: {
  title: string;
  forms: { name: string; title: string }[];
}) {
  const { problems, done, of, over, says } = useWorkspaceCheck(true);
  const router = useRouter();
  const found = problems.length === 1 ? '1 problem' : `${problems.length} problems`;
  return (
    <>
      <PageHead workspace={title} section="problems" title="Problems" />
      <Box as="main" px="16px" py="14px" maxW="1000px">
        {says !== null ? (
          <Notice tone="error">{says}</Notice>
        ) : (
          <Box role="status" color={over && problems.length === 0 ? 'act' : 'soft'} pb="6px">
            {over
              ? problems.length === 0
                ? `✓ nothing found in ${forms.length} forms`
                : found
              : `Checking types, mistakes and scenarios: ${done} of ${Math.max(of, forms.length)} forms, ${found} so far…`}
          </Box>
        )}
        <ProblemList
          problems={problems}
          formTitle={(form) => forms.find(({ name }) => name === form)?.title ?? form}
          onGo={(problem) => router.push(addressHere(addressOf(problem)))}
        />
      </Box>
    </>
  );
}
