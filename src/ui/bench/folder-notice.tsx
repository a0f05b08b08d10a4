'use client';
/** How the folder of the workspace stands, where something in it is wrong or was changed on both sides at once. */
import { useRoom } from '../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { call } from '../api';
import { Button, Mono, Notice } from '../kit';
import type { Bench } from './create-bench';

export function FolderNotice({ bench }: { bench: Bench }) {
  const folder = useRoom(bench.folder, (state) => state.folder);
  if (folder === null || (folder.errors.length === 0 && folder.conflicts.length === 0)) return null;
  const settle = async (unit: string, take: 'app' | 'folder') => {
    const reply = await call('PUT', '/api/workspace/conflicts', { unit, take });
    if (!reply.ok) bench.screen.say(reply.says);
  };
  return (
    <Box px="10px" py="6px" borderBottomWidth="1px" borderColor="line" maxH="40vh" overflowY="auto">
      {folder.errors.length > 0 && (
        <Notice tone="error">
          Something in {folder.folder} cannot be taken until it is mended:
          {folder.errors.slice(0, 4).map((line) => (
            <Mono as="div" key={line}>
              {line}
            </Mono>
          ))}
        </Notice>
      )}
      {folder.conflicts.map(({ unit, app, folder: theirs }) => (
        <Notice key={unit} tone="error">
          <Mono>{unit}</Mono> was changed here and in the folder at once. Nothing is written over
          until you choose.
          <Flex gap="10px" mt="6px" wrap="wrap">
            <Version title="Here" text={app} />
            <Version title="In the folder" text={theirs} />
          </Flex>
          <Flex gap="10px" mt="6px">
            <Button onClick={() => void settle(unit, 'app')}>Keep what is here</Button>
            <Button onClick={() => void settle(unit, 'folder')}>Take what the folder has</Button>
          </Flex>
        </Notice>
      ))}
    </Box>
  );
}

function Version({ title, text }: { title: string; text: string | null }) {
  return (
    <Box flex="1 1 200px" minW={0}>
      <Box fontSize="12.5px">{title}</Box>
      <chakra.pre
        aria-label={title}
        tabIndex={0}
        fontFamily="mono"
        fontSize="12px"
        maxH="140px"
        overflow="auto"
        bg="sheet"
        p="6px"
      >
        {text ?? '(removed)'}
      </chakra.pre>
    </Box>
  );
}
