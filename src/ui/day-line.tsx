'use client';
/** A day, typed as the workspace writes dates. */
import { useState } from 'react';
import { readDate } from '@/core/form/date-style';
import { useDates } from './writing';
import { Line } from './kit';

export function DayLine({
  label,
  value,
  disabled,
  width,
  onTake,
}: {
  label: string;
  /** As YYYY-MM-DD. */
  value: string;
  disabled?: boolean;
  width?: string;
  onTake: (day: string) => void;
}) {
  const dates = useDates();
  const shown = dates.day(value);
  const [text, setText] = useState<string | null>(null);
  const read = text === null ? value : readDate(text, dates.order);
  const take = () => {
    if (read !== null && read !== value) onTake(read);
    setText(null);
  };
  return (
    <Line
      aria-label={label}
      title={dates.looks}
      placeholder={dates.looks}
      disabled={disabled}
      width={width ?? '104px'}
      aria-invalid={read === null}
      value={text ?? shown}
      onChange={({ target }) => setText(target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setText(null);
      }}
    />
  );
}
