'use client';
/** Where a name is used, and searching all scripts of the workspace: lists of places that lead there. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Hit } from '@/core/language/search';
import { get } from '../../api';
import { addressHere } from '../../address';
import { Button, Checkbox, Line, Mono, Notice, Region } from '../../kit';
import type { Bench } from '../create-bench';
import type { UsePlace } from './state';
import { WindowTitle } from '../../window';

export function Uses({ bench }: { bench: Bench }) {
  const uses = useRoom(bench.code, (state) => state.uses);
  const material = useMaterial(bench);
  if (uses === null) return null;
  const go = (place: UsePlace) => {
    bench.code.closeUses();
    if (place.form !== material.form.name)
      window.open(
        addressHere(
          `/bench/${place.form}?${new URLSearchParams(place.is === 'line' ? { behaviour: place.behaviour, line: String(place.line) } : { scenario: place.name }).toString()}`,
        ),
        '_blank',
        'noopener',
      );
    else
      bench.goTo(
        place.is === 'line'
          ? { is: 'line', behaviour: place.behaviour, line: place.line }
          : { is: 'scenario', name: place.name },
      );
  };
  return (
    <Box p="16px">
      <WindowTitle>
        Uses of <Mono>{uses.of}</Mono>
      </WindowTitle>
      <Box as="ul" listStyleType="none" mt="8px" maxH="60vh" overflowY="auto">
        {uses.places.map((place, i) => (
          <Box as="li" key={i} py="3px" borderTopWidth="1px" borderColor="line">
            <Button look="text" onClick={() => go(place)}>
              {place.form !== material.form.name && `${place.form}, `}
              {place.is === 'line'
                ? `${place.title}, line ${place.line}`
                : `scenario “${place.title}”, ${place.steps.length === 1 ? 'step' : 'steps'} ${place.steps.join(', ')}`}
            </Button>
            {place.is === 'line' && (
              <chakra.div
                fontFamily="mono"
                fontSize="12px"
                color="soft"
                overflow="hidden"
                textOverflow="ellipsis"
                whiteSpace="nowrap"
              >
                {place.text}
              </chakra.div>
            )}
          </Box>
        ))}
        {uses.places.length === 0 && <li>Nothing uses it.</li>}
      </Box>
      <Flex mt="12px">
        <Button ml="auto" onClick={bench.code.closeUses}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}

export function SearchScripts({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const material = useMaterial(bench);
  const [wanted, setWanted] = useState('');
  const [pattern, setPattern] = useState(false);
  const [exact, setExact] = useState(false);
  const [found, setFound] = useState<{ hits: Hit[]; cut: boolean } | { says: string } | null>(null);
  const search = async () => {
    if (wanted === '') return;
    // What stands in the editor is searched as it is, not as it was when last saved.
    await bench.core.saving.saveAll();
    const reply = await get<{ hits: Hit[]; cut: boolean }>(
      `/api/search?${new URLSearchParams({ wanted, ...(pattern ? { pattern: 'yes' } : {}), ...(exact ? { exact: 'yes' } : {}) }).toString()}`,
    );
    setFound(reply.ok ? reply.body : { says: reply.says });
  };
  const go = ({ form, name, line }: Hit) => {
    onDone();
    if (form === material.form.name || bench.code.scripts.has(name))
      bench.goTo({ is: 'line', behaviour: name, line });
    else
      window.open(
        addressHere(
          form === null
            ? `/services/${name.split('.')[0]!}`
            : form === ''
              ? `/scripts/${name}?line=${line}`
              : `/bench/${form}?${new URLSearchParams({ behaviour: name, line: String(line) }).toString()}`,
        ),
        '_blank',
        'noopener',
      );
  };
  return (
    <Box p="16px">
      <WindowTitle>Search all scripts of the workspace</WindowTitle>
      <Flex mt="8px" gap="10px" align="center" flexWrap="wrap">
        <Line
          autoFocus
          aria-label="Search for"
          flex="1"
          minW="160px"
          fontFamily="mono"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && void search()}
        />
        <Checkbox fontSize="13px" label="capitals count" on={exact} onSet={setExact} />
        <Checkbox fontSize="13px" label="pattern" on={pattern} onSet={setPattern} />
        <Button look="go" disabled={wanted === ''} onClick={() => void search()}>
          Search
        </Button>
      </Flex>
      {found !== null && 'says' in found && (
        <Notice tone="error" mt="8px">
          {found.says}
        </Notice>
      )}
      {found !== null && 'hits' in found && (
        <Region mt="10px" maxH="56vh" aria-label="Found">
          <Box color="soft" role="status">
            {found.hits.length === 0
              ? 'Nothing found.'
              : found.cut
                ? `The first ${found.hits.length} places; say more to find fewer.`
                : counted(found.hits.length, 'place')}
          </Box>
          {found.hits.map((hit, i) => (
            <Flex
              key={i}
              gap="10px"
              py="2px"
              align="baseline"
              borderTopWidth="1px"
              borderColor="line"
            >
              <Button look="text" flexShrink={0} onClick={() => go(hit)}>
                {hit.form === '' ? '' : `${hit.form ?? 'services'}/`}
                {hit.name}, {hit.line}
              </Button>
              <chakra.span
                fontFamily="mono"
                fontSize="12px"
                overflow="hidden"
                textOverflow="ellipsis"
                whiteSpace="pre"
              >
                {hit.text.slice(0, hit.from).trimStart()}
                <chakra.mark bg="saidGround" color="ink">
                  {hit.text.slice(hit.from, hit.to)}
                </chakra.mark>
                {hit.text.slice(hit.to)}
              </chakra.span>
            </Flex>
          ))}
        </Region>
      )}
      <Flex mt="12px">
        <Button ml="auto" onClick={onDone}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}
