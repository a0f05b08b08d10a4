'use client';
/** How the panes of the bench share the window: widths and heights that are kept, one at a time where it is narrow. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { Splitter } from '@chakra-ui/react/splitter';
import { useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import { STRIP } from './tape/steps-strip';

/** A hidden overflow can still be scrolled by focus or by the editor, which would shift a whole pane; a clipped one cannot. */
export const CLIP = { overflow: 'clip !important' };

const SIZES = 'tavro.bench.panes';

export function readSizes(): { columns: number[]; rows: number[] } {
  const fallback = { columns: [13.5, 52.9, 33.6], rows: [62, 38] };
  try {
    return { ...fallback, ...(JSON.parse(localStorage.getItem(SIZES) ?? '{}') as object) };
  } catch {
    return fallback;
  }
}

export function keepSizes(part: Partial<{ columns: number[]; rows: number[] }>): void {
  try {
    localStorage.setItem(SIZES, JSON.stringify({ ...readSizes(), ...part }));
  } catch {
    // Sizes are a convenience; a browser that keeps nothing still works.
  }
}

/** How much of the height the strip takes while the drawer is closed, in per cent. */
export function useFolded(whole: React.RefObject<HTMLDivElement | null>, drawn: boolean): number {
  const [folded, setFolded] = useState(8);
  useEffect(() => {
    if (whole.current === null) return;
    const observer = new ResizeObserver(([entry]) => {
      const { height } = entry!.contentRect;
      if (height > 0) setFolded((100 * (STRIP + 2)) / height);
    });
    observer.observe(whole.current);
    return () => observer.disconnect();
  }, [whole, drawn]);
  return folded;
}

/** On a narrow screen one pane is seen at a time. */
export function OneAtATime({ panes }: { panes: { label: string; content: ReactNode }[] }) {
  const [at, setAt] = useState(1);
  return (
    <Flex as="main" direction="column" flex="1" minH={0}>
      <Flex
        role="group"
        aria-label="Panes"
        flexShrink={0}
        borderBottomWidth="1px"
        borderColor="line"
      >
        {panes.map(({ label }, i) => (
          <chakra.button
            key={label}
            type="button"
            flex="1"
            py="6px"
            aria-pressed={i === at}
            color={i === at ? 'ink' : 'soft'}
            fontWeight={i === at ? 620 : 400}
            boxShadow={i === at ? 'inset 0 -2px 0 {colors.act}' : undefined}
            onClick={() => setAt(i)}
          >
            {label}
          </chakra.button>
        ))}
      </Flex>
      {panes.map(({ label, content }, i) => (
        // All stay, so that nothing typed or scrolled to is lost by looking elsewhere.
        <Box
          key={label}
          as="section"
          aria-label={label}
          flex="1"
          minH={0}
          overflow="auto"
          display={i === at ? 'block' : 'none'}
        >
          {content}
        </Box>
      ))}
    </Flex>
  );
}

const NARROW = '(max-width: 759px)';

export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = matchMedia(NARROW);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => matchMedia(NARROW).matches,
    () => false,
  );
}

export function Handle({
  id,
  label,
  flat = false,
}: {
  id: `${string}:${string}`;
  label: string;
  flat?: boolean;
}) {
  // A hairline to see, seven pixels to take hold of.
  const grip = flat
    ? { height: '7px', my: '-3px', cursor: 'row-resize' }
    : { width: '7px', mx: '-3px', cursor: 'col-resize' };
  const hairline = flat
    ? { height: '1px', width: '100%', top: '3px' }
    : { width: '1px', height: '100%', left: '3px' };
  return (
    <Splitter.ResizeTrigger
      id={id}
      aria-label={label}
      flexShrink={0}
      position="relative"
      zIndex={1}
      {...grip}
      _hover={{ '& > div': { bg: 'act' } }}
    >
      <Box position="absolute" bg="line" {...hairline} />
    </Splitter.ResizeTrigger>
  );
}
