'use client';
/** Two versions of an entry side by side, and which of them is to be saved. */
import { chakra, Flex } from '@chakra-ui/react';
import { Button, Notice } from '../kit';

export interface TwoVersionsProps {
  says: string;
  /** What the three columns are: the field, one version, the other. */
  head: readonly [string, string, string];
  rows: readonly (readonly [string, string, string])[];
  /** What saving one of them says. */
  save: string;
  onSave: () => void;
  onBack: () => void;
}

export function TwoVersions({ says, head, rows, save, onSave, onBack }: TwoVersionsProps) {
  return (
    <Notice tone="warning">
      {says}
      <chakra.table mt="6px" width="100%">
        <thead>
          <tr>
            {head.map((text) => (
              <chakra.th key={text} textAlign="left" fontWeight={620}>
                {text}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row[0]}>
              {row.map((cell, i) => (
                <td key={i}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </chakra.table>
      <Flex gap="8px" mt="8px">
        <Button look="go" onClick={onSave}>
          {save}
        </Button>
        <Button onClick={onBack}>Go on filling in</Button>
      </Flex>
    </Notice>
  );
}
