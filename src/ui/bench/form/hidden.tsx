'use client';
/** Parts that are hidden, by the section that they are in, each to be asked about. */
import { Box } from '@chakra-ui/react';
import type { Seen } from '@/core/scenario/seen';
import type { BenchMaterial } from '../common/material';
import { BareButton } from '../../kit';

export function Hidden({
  material,
  seen,
  onAsk,
}: {
  material: BenchMaterial;
  seen: Seen;
  onAsk: (part: string) => void;
}) {
  const sections = material.form.pages.flatMap((page) => page.sections);
  const hidden = sections.flatMap((section) => {
    if (seen.parts[section.name]?.onScreen === false)
      return [{ name: section.name, label: section.title }];
    return section.fields
      .filter((field) => seen.parts[field.name]?.onScreen === false)
      .map(({ name, label }) => ({ name, label }));
  });
  if (hidden.length === 0) return null;
  return (
    <Box
      color="soft"
      fontSize="12px"
      borderTopWidth="1px"
      borderStyle="dashed"
      borderColor="line"
      mt="8px"
      pt="4px"
    >
      {hidden.length === 1 ? '1 part is hidden: ' : `${hidden.length} parts are hidden: `}
      {hidden.map((part, i) => (
        <span key={part.name}>
          {i > 0 && ', '}
          <BareButton textDecoration="underline" onClick={() => onAsk(part.name)}>
            {part.label}
          </BareButton>
        </span>
      ))}
    </Box>
  );
}
