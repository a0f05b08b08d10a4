'use client';
/** What stands where a form would be filled in while it has no release. */
import { Box } from '@chakra-ui/react';
import { LinkHere } from '../address';
import { PageHead } from '../page-head';
import { Anchor } from '../kit';

export function NoRelease({
  workspace,
  title,
  name,
}: {
  workspace: string;
  title: string;
  name: string;
}) {
  return (
    <>
      <PageHead workspace={workspace} section="forms" title={title} form={{ name, room: 'fill' }} />
      <Box as="main" px="16px" py="20px">
        This form has no release yet, so nobody can fill it in.{' '}
        <Anchor asChild>
          <LinkHere href={`/bench/${name}`}>Make one on the bench.</LinkHere>
        </Anchor>
      </Box>
    </>
  );
}
