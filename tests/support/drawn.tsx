/** Components drawn without a browser, in jsdom: as every page stands, in styles, dates and what is asked of the server. */
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, configure, render } from '@testing-library/react';
import type { ReactElement, ReactNode } from 'react';
import { onTestFinished } from 'vitest';
import { WritingIn } from '../../src/ui/writing';
import { ServerData } from '../../src/ui/server-data';
import { system } from '../../src/ui/theme';

// The former is there to end what never comes; a loaded machine takes its time. Whether something is hidden from those
// who do not see it takes jsdom a third of all the time, and is tested in the browser.
configure({ asyncUtilTimeout: 20_000, defaultHidden: true });

function Page({ children }: { children: ReactNode }) {
  return (
    <ChakraProvider value={system}>
      <WritingIn writing={{ dates: 'iso', numbers: 'point' }}>
        <ServerData>{children}</ServerData>
      </WritingIn>
    </ChakraProvider>
  );
}

/** Drawn until the test is over. Not by a hook of this module, which several files of tests share and load once. */
export function drawn(element: ReactElement) {
  onTestFinished(cleanup);
  return render(element, { wrapper: Page });
}

/** What a hook gives, in a page. */
export { Page as PageAround };
