'use client';
/** What every page stands in: styles, theme, light and dark. */
import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import type { DateStyle } from '@/core/form/date-style';
import { DatesIn } from './dates';
import { EmotionRegistry } from './emotion-registry';
import { system } from './theme';

export function Providers({
  nonce,
  dates,
  children,
}: {
  nonce: string;
  dates: DateStyle;
  children: ReactNode;
}) {
  return (
    <EmotionRegistry>
      <ChakraProvider value={system}>
        <ThemeProvider attribute="class" disableTransitionOnChange nonce={nonce}>
          <DatesIn dates={dates}>{children}</DatesIn>
        </ThemeProvider>
      </ChakraProvider>
    </EmotionRegistry>
  );
}
