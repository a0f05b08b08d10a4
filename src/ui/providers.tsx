'use client';
/** What every page stands in: styles, theme, light and dark. */
import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import type { DateStyle } from '@/core/form/date-style';
import { BaseIn } from './address';
import { DatesIn } from './dates';
import { EmotionRegistry } from './emotion-registry';
import { system } from './theme';

export function Providers({
  nonce,
  dates,
  base,
  children,
}: {
  nonce: string;
  dates: DateStyle;
  /** What stands before every address of the workspace. */
  base: string;
  children: ReactNode;
}) {
  return (
    <EmotionRegistry>
      <ChakraProvider value={system}>
        <ThemeProvider attribute="class" disableTransitionOnChange nonce={nonce}>
          <BaseIn base={base}>
            <DatesIn dates={dates}>{children}</DatesIn>
          </BaseIn>
        </ThemeProvider>
      </ChakraProvider>
    </EmotionRegistry>
  );
}
