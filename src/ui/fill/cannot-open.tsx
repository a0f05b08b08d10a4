'use client';
/** What stands where a form would be filled in when it was asked for in a way it cannot be opened. */
import { Box } from '@chakra-ui/react';
import { Notice } from '../kit';
import { PageHead } from '../page-head';

export function CannotBeOpened({
  workspace,
  name,
  title,
  says,
}: {
  workspace: string;
  name: string;
  title: string;
  says: string;
}) {
  return (
    <>
      <PageHead workspace={workspace} section="forms" title={title} form={{ name, room: 'fill' }} />
      <Box as="main" px="16px" py="20px">
        <Notice tone="error">{says}</Notice>
      </Box>
    </>
  );
}
