'use client';
/** What every page stands in: styles, theme, light and dark. */
import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import { EmotionRegistry } from './emotion-registry';
import { system } from './theme';

export function Providers({ nonce, children }: { nonce: string; children: ReactNode }) {
  return (
    <EmotionRegistry>
      <ChakraProvider value={system}>
        <ThemeProvider attribute="class" disableTransitionOnChange nonce={nonce}>
          {children}
        </ThemeProvider>
      </ChakraProvider>
    </EmotionRegistry>
  );
}
