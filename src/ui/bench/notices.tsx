'use client';
/** What happened on the bench, over the page, so that nothing moves under the pointer. */
import { Box, Flex } from '@chakra-ui/react';
import { useEffect } from 'react';
import { readHeader } from '@/core/script/header';
import { LeftNotice } from '../draft/use-draft';
import { Button, Notice } from '../kit';
import { useRoom } from '../use-room';
import type { Bench } from './create-bench';

export function Notices({ bench }: { bench: Bench }) {
  const notice = useRoom(bench.screen, (state) => state.notice);
  const left = useRoom(bench.left, (state) => state.left);
  const deleted = useRoom(bench.behaviours, (state) => state.deleted);
  // What went well need not be closed; what did not stays until it is.
  useEffect(() => {
    if (notice?.tone !== 'info') return;
    const timer = setTimeout(bench.screen.dismiss, 8000);
    return () => clearTimeout(timer);
  }, [notice]);
  if (notice === null && left === null && deleted === null) return null;
  return (
    <Flex
      direction="column"
      gap="6px"
      position="fixed"
      bottom="14px"
      left="50%"
      transform="translateX(-50%)"
      width="min(720px, calc(100vw - 24px))"
      zIndex={5}
      css={{ '& > *': { boxShadow: '{shadows.raised}' } }}
    >
      {notice !== null && (
        <Flex gap="8px" align="center" bg="sheet" p="4px">
          <Box flex="1">
            <Notice tone={notice.tone}>{notice.text}</Notice>
          </Box>
          <Button onClick={bench.screen.dismiss}>Close</Button>
        </Flex>
      )}
      {left !== null && (
        <Box bg="sheet" p="4px">
          <LeftNotice at={left.at} what="changes" onTake={bench.left.take} />
        </Box>
      )}
      {deleted !== null && (
        <Flex gap="8px" align="center" bg="sheet" p="4px">
          <Box flex="1">
            <Notice tone="info">“{readHeader(deleted).title}” is deleted.</Notice>
          </Box>
          <Button onClick={bench.behaviours.restore}>Bring it back</Button>
          <Button onClick={bench.behaviours.forgetDeleted}>Close</Button>
        </Flex>
      )}
    </Flex>
  );
}
