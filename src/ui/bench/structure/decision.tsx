'use client';
/** A warning that asks for a decision: it comes into sight and has the focus, wherever it stands. */
import { chakra } from '@chakra-ui/react';
import { useEffect, useRef, type ReactNode } from 'react';
import { Notice } from '../../kit';

export function Decision({ label, children }: { label: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.scrollIntoView({ block: 'nearest' });
    box.current?.focus({ preventScroll: true });
  }, []);
  return (
    <chakra.div ref={box} tabIndex={-1} role="group" aria-label={label} mt="6px">
      <Notice tone="warning">{children}</Notice>
    </chakra.div>
  );
}
