'use client';
/** Choosing a part of the form. */
import type { Form } from '@/core/form/definition';
import { namedParts, type PlacesOf } from '@/core/scenario/naming';
import { Select } from '../../kit';

/** The parts of the form by label. */
export function PartSelect({
  form,
  label,
  only,
  value,
  placesOf,
  onChange,
}: {
  form: Form;
  label: string;
  only: 'values' | 'all';
  value: string;
  placesOf?: PlacesOf;
  onChange: (part: string) => void;
}) {
  const parts = namedParts(form, only, placesOf);
  const there = value === '' || parts.some(({ key }) => key === value);
  return (
    <Select
      aria-label={label}
      maxW="200px"
      value={value}
      options={[
        ...(value === '' ? [{ key: '', label: 'choose a part' }] : []),
        ...parts,
        ...(there ? [] : [{ key: value, label: value }]),
      ]}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
