/** Components drawn without a browser, in jsdom: as every page stands, in styles, dates and what is asked of the server. */
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, render } from '@testing-library/react';
import type { ReactElement, ReactNode } from 'react';
import { afterEach } from 'vitest';
import { DatesIn } from '../../src/ui/dates';
import { ServerData } from '../../src/ui/server-data';
import { system } from '../../src/ui/theme';

afterEach(cleanup);

function Page({ children }: { children: ReactNode }) {
  return (
    <ChakraProvider value={system}>
      <DatesIn dates="iso">
        <ServerData>{children}</ServerData>
      </DatesIn>
    </ChakraProvider>
  );
}

export function drawn(element: ReactElement) {
  return render(element, { wrapper: Page });
}

/** What a hook gives, in a page. */
export { Page as PageAround };
