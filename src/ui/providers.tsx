'use client';
/** What every page stands in: styles, theme, light and dark. */
import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import { BaseIn } from './address';
import { WritingIn, type Writing } from './writing';
import { EmotionRegistry } from './emotion-registry';
import { system } from './theme';

export function Providers({
  nonce,
  writing,
  base,
  children,
}: {
  nonce: string;
  writing: Writing;
  /** What stands before every address of the workspace. */
  base: string;
  children: ReactNode;
}) {
  return (
    <EmotionRegistry>
      <ChakraProvider value={system}>
        <ThemeProvider attribute="class" disableTransitionOnChange nonce={nonce}>
          <BaseIn base={base}>
            <WritingIn writing={writing}>{children}</WritingIn>
          </BaseIn>
        </ThemeProvider>
      </ChakraProvider>
    </EmotionRegistry>
  );
}
