/** Components drawn without a browser, in jsdom: as every page stands, in styles, dates, addresses and what is asked of the server. */
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, configure, render } from '@testing-library/react';
import { AppRouterContext } from 'next/dist/shared/lib/app-router-context.shared-runtime';
import type { ReactElement, ReactNode } from 'react';
import { onTestFinished, vi } from 'vitest';
import { WritingIn } from '../../src/ui/writing';
import { ServerData } from '../../src/ui/server-data';
import { system } from '../../src/ui/theme';

// The former is there to end what never comes; a loaded machine takes its time. Whether something is hidden from those
// who do not see it takes jsdom a third of all the time, and is tested in the browser.
configure({ asyncUtilTimeout: 20_000, defaultHidden: true });

/** Where a page goes on to. By Next's own contexts, since a mock of its module would hold for the first file only. */
export const router = {
  back: vi.fn(),
  forward: vi.fn(),
  prefetch: vi.fn(),
  push: vi.fn(),
  refresh: vi.fn(),
  replace: vi.fn(),
};

function Page({ children }: { children: ReactNode }) {
  return (
    <AppRouterContext.Provider value={router as never}>
      <ChakraProvider value={system}>
        <WritingIn writing={{ dates: 'iso', numbers: 'point' }}>
          <ServerData>{children}</ServerData>
        </WritingIn>
      </ChakraProvider>
    </AppRouterContext.Provider>
  );
}

/** Drawn until the test is over. Not by a hook of this module, which several files of tests share and load once. */
export function drawn(element: ReactElement) {
  onTestFinished(() => {
    cleanup();
    for (const went of Object.values(router)) went.mockClear();
  });
  return render(element, { wrapper: Page });
}

/** What a hook gives, in a page. */
export { Page as PageAround };
