'use client';
/** Everything that is wrong in the workspace; the server checks form by form, and what was found is shown meanwhile. */
import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { checkWorkspace, type Checking } from '../check-workspace';
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
  const [checking, setChecking] = useState<Checking | { says: string }>({
    problems: [],
    done: 0,
    of: 0,
  });
  const [over, setOver] = useState(false);
  const router = useRouter();
  useEffect(() => {
    void checkWorkspace(setChecking).then((checked) => {
      setChecking(checked);
      setOver(true);
    });
  }, []);
  const problems = 'says' in checking ? [] : checking.problems;
  const found = problems.length === 1 ? '1 problem' : `${problems.length} problems`;
  return (
    <>
      <PageHead workspace={title} section="problems" title="Problems" />
      <Box as="main" px="16px" py="14px" maxW="1000px">
        {'says' in checking ? (
          <Notice tone="error">{checking.says}</Notice>
        ) : (
          <Box role="status" color={over && problems.length === 0 ? 'act' : 'soft'} pb="6px">
            {over
              ? problems.length === 0
                ? `✓ nothing found in ${forms.length} forms`
                : found
              : `Checking types, mistakes and scenarios: ${checking.done} of ${Math.max(checking.of, forms.length)} forms, ${found} so far…`}
          </Box>
        )}
        <ProblemList
          problems={problems}
          formTitle={(form) => forms.find(({ name }) => name === form)?.title ?? form}
          onGo={(problem) => router.push(addressOf(problem))}
        />
      </Box>
    </>
  );
}
