'use client';
/** The handbook beside the code: pages by group, a search over all of them, and the page that is open. */
import { useRoom } from '../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import MiniSearch from 'minisearch';
import { createContext, useContext, useEffect, useMemo, useRef, useState } from 'react';
import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { sectionsOfPage, type Page } from '@/core/handbook/page';
import { Button, Line, Notice, Region } from '../kit';
import { useAnswer } from '../server-data';
import type { Bench } from './create-bench';
import { PaneHead } from './common/pane-parts';

export function HandbookPane({ bench }: { bench: Bench }) {
  const open = useRoom(bench.screen, ({ handbook }) => handbook);
  const { data: pages, error } = useAnswer<Page[]>('/api/handbook');
  const [wanted, setWanted] = useState('');
  const top = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // What scrollTo gives back is no clean-up.
    void top.current?.scrollTo({ top: 0 });
  }, [open]);
  const index = useMemo(() => (pages === undefined ? null : indexOf(pages)), [pages]);
  const found = wanted.trim() === '' || index === null ? null : index.search(wanted).slice(0, 30);
  const page = pages?.find(({ id }) => id === open);
  const choose = (id: string) => {
    setWanted('');
    bench.screen.openHandbook(id);
  };
  return (
    <Flex direction="column" height="100%" width="100%" minH={0}>
      <PaneHead px="12px" py="8px">
        <chakra.b fontWeight={620}>Handbook</chakra.b>
        <Line
          type="search"
          aria-label="Search the handbook"
          placeholder="Search"
          flex="1"
          minW="90px"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        <Button onClick={() => choose('@contents')}>Contents</Button>
        <Button onClick={bench.screen.showForm}>Live form</Button>
      </PaneHead>
      <Region ref={top} flex="1" px="14px" py="10px" aria-label="Page of the handbook" css={PROSE}>
        {pages === undefined && error === null && 'Opening the handbook…'}
        {error !== null && <Notice tone="error">{error.message}</Notice>}
        {pages !== undefined &&
          (found !== null ? (
            <ul>
              {found.length === 0 && <li>Nothing in the handbook reads like “{wanted}”.</li>}
              {found.map((hit) => (
                <li key={String(hit.id)}>
                  <Button look="text" onClick={() => choose(String(hit.page))}>
                    {String(hit.title)}
                  </Button>
                </li>
              ))}
            </ul>
          ) : page === undefined ? (
            <Contents pages={pages} onChoose={choose} />
          ) : (
            <>
              <h2>{page.title}</h2>
              <Linked.Provider value={{ pages, onChoose: choose }}>
                <Markdown remarkPlugins={[remarkGfm]} components={{ a: PageLink }}>
                  {page.markdown}
                </Markdown>
              </Linked.Provider>
            </>
          ))}
      </Region>
    </Flex>
  );
}

function Contents({ pages, onChoose }: { pages: readonly Page[]; onChoose: (id: string) => void }) {
  return (
    <>
      {[...new Set(pages.map(({ group }) => group))].map((group) => (
        <Box key={group}>
          <h3>{group}</h3>
          <ul>
            {pages
              .filter((page) => page.group === group)
              .map((page) => (
                <li key={page.id}>
                  <Button look="text" onClick={() => onChoose(page.id)}>
                    {page.title}
                  </Button>
                </li>
              ))}
          </ul>
        </Box>
      ))}
    </>
  );
}

const Linked = createContext<{ pages: readonly Page[]; onChoose: (id: string) => void }>({
  pages: [],
  onChoose: () => undefined,
});

/** Links between pages stay in the handbook; others are said, not followed. */
function PageLink({
  href = '',
  children,
}: {
  href?: string | undefined;
  children?: React.ReactNode;
}) {
  const { pages, onChoose } = useContext(Linked);
  const id = href
    .replace(/^(?:\.\/)?/, '')
    .replace(/\.md(?:#.*)?$/, '')
    .replace(/^scripts$/, 'language');
  if (!pages.some((page) => page.id === id)) return <>{children}</>;
  return (
    <Button look="text" onClick={() => onChoose(id)}>
      {children}
    </Button>
  );
}

function indexOf(pages: readonly Page[]): MiniSearch {
  const index = new MiniSearch({
    fields: ['title', 'text'],
    storeFields: ['title', 'page'],
    searchOptions: { boost: { title: 3 }, prefix: true, fuzzy: 0.15 },
  });
  index.addAll(pages.flatMap(sectionsOfPage));
  return index;
}

const PROSE = {
  fontSize: '13.5px',
  '& h2': { fontSize: '16px', fontWeight: 640, marginBottom: '6px' },
  '& h3, & h2 ~ h2': { fontSize: '14px', fontWeight: 640, marginTop: '14px', marginBottom: '4px' },
  '& p, & ul, & ol, & table': { marginBottom: '8px' },
  '& ul': { listStyle: 'none' },
  '& ul li': { paddingLeft: '12px', textIndent: '-12px', marginBottom: '3px' },
  '& ol': { paddingLeft: '22px', listStyle: 'decimal' },
  '& code': { fontFamily: 'mono', fontSize: '12px', color: 'keyInk' },
  '& pre': {
    fontFamily: 'mono',
    fontSize: '12px',
    lineHeight: '18px',
    background: 'var(--tavro-colors-sheet)',
    border: '1px solid var(--tavro-colors-line)',
    borderRadius: '4px',
    padding: '8px 10px',
    whiteSpace: 'pre-wrap',
    marginBottom: '10px',
  },
  '& pre code': { color: 'ink' },
  '& td, & th': {
    textAlign: 'left',
    verticalAlign: 'top',
    padding: '3px 10px 3px 0',
    borderBottom: '1px solid var(--tavro-colors-line)',
  },
};
