'use client';
/** A strip of tabs within a pane. */
import { Flex, type HTMLChakraProps } from '@chakra-ui/react';
import { BareButton } from '../../kit';

export function TabStrip<K extends string>({
  label,
  tabs,
  chosen,
  fontSize,
  onChoose,
  ...props
}: {
  label: string;
  tabs: readonly { key: K; label: string }[];
  chosen: K;
  fontSize: string;
  onChoose: (key: K) => void;
} & Pick<HTMLChakraProps<'div'>, 'gap' | 'px' | 'pt' | 'borderBottomWidth' | 'overflowX'>) {
  return (
    <Flex role="tablist" aria-label={label} borderColor="line" flexShrink={0} {...props}>
      {tabs.map(({ key, label: text }) => (
        <BareButton
          key={key}
          role="tab"
          aria-selected={chosen === key}
          py="4px"
          fontSize={fontSize}
          whiteSpace="nowrap"
          color={chosen === key ? 'ink' : 'soft'}
          fontWeight={chosen === key ? 620 : 400}
          boxShadow={chosen === key ? 'inset 0 -2px 0 {colors.act}' : undefined}
          onClick={() => onChoose(key)}
        >
          {text}
        </BareButton>
      ))}
    </Flex>
  );
}
