'use client';
/** What stands where a form would be filled in when it was asked for in a way it cannot be opened. */
import { Box } from '@chakra-ui/react';
import { Notice, PageHead } from '../kit';

export function CannotBeOpened({
  workspace,
  title,
  says,
}: {
  workspace: string;
  title: string;
  says: string;
}) {
  return (
    <>
      <PageHead trail={[{ label: workspace, href: '/' }, { label: title }]} />
      <Box as="main" px="16px" py="20px">
        <Notice tone="error">{says}</Notice>
      </Box>
    </>
  );
}
