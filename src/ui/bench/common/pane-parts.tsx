'use client';
/** What panes are made of: a bar at their head, and a list of parts that scrolls. */
import { Flex, type BoxProps, type FlexProps } from '@chakra-ui/react';
import type { Ref } from 'react';
import { Region } from '../../kit';

/** The bar at the head of a pane or window. */
export function PaneHead(props: FlexProps) {
  return (
    <Flex
      px="14px"
      py="6px"
      gap="8px"
      align="center"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      wrap="wrap"
      {...props}
    />
  );
}

/** Parts one below the other, reached by keys as a whole; `label` is what they are called. */
export function PartList({
  label,
  ...rest
}: { label: string; ref?: Ref<HTMLDivElement> } & BoxProps) {
  return <Region flex="1 1 auto" pt="8px" minH={0} aria-label={label} {...rest} />;
}
