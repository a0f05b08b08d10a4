'use client';
/** A pane of a page: an error while it is drawn takes down that pane alone, says so, and it can be tried again. */
import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { Button, Notice } from './kit';

/** `what` names the pane, such as `The outline`; it is tried again by itself when `of` becomes another. */
export function Pane({
  what,
  of = null,
  children,
}: {
  what: string;
  of?: unknown;
  children: ReactNode;
}) {
  return (
    <ErrorBoundary
      resetKeys={[of]}
      onError={(error) => console.error(`${what} could not be drawn`, error)}
      fallbackRender={fallenIn(what)}
    >
      {children}
    </ErrorBoundary>
  );
}

/** What stands in place of a pane. */
function fallenIn(what: string) {
  return function Fallen({ error, resetErrorBoundary }: FallbackProps) {
    return (
      <Box p="10px" width="100%">
        <Notice tone="error">
          {what} could not be drawn: {error instanceof Error ? error.message : String(error)}.
          Everything else goes on, and nothing is lost.{' '}
          <Button onClick={resetErrorBoundary}>Try again</Button>
        </Notice>
      </Box>
    );
  };
}
