'use client';
/** Everything that is wrong in the workspace; the check runs on the server and takes a few seconds. */
import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { Problem } from '@/core/problems/problems';
import { useFetched } from '../api';
import { Notice, PageHead } from '../kit';
import { addressOf, ProblemList } from '../problem-list';

export function ProblemsPage({ title, forms }: { title: string; forms: { name: string; title: string }[] }) {
  const fetched = useFetched<Problem[]>('/api/problems');
  const router = useRouter();
  const problems = fetched !== null && 'body' in fetched ? fetched.body : null;
  return (
    <>
      <PageHead trail={[{ label: title, href: '/' }, { label: 'Problems' }]} />
      <Box as="main" px="16px" py="14px" maxW="1000px">
        {fetched === null && <Box role="status">Checking the types, mistakes and scenarios of {forms.length} forms…</Box>}
        {fetched !== null && 'says' in fetched && <Notice tone="error">{fetched.says}</Notice>}
        {problems !== null && (
          <>
            <Box role="status" color={problems.length === 0 ? 'act' : 'soft'} pb="6px">
              {problems.length === 0 ? `✓ nothing found in ${forms.length} forms` : problems.length === 1 ? '1 problem' : `${problems.length} problems`}
            </Box>
            <ProblemList problems={problems} formTitle={(form) => forms.find(({ name }) => name === form)?.title ?? form} onGo={(problem) => router.push(addressOf(problem))} />
          </>
        )}
      </Box>
    </>
  );
}
