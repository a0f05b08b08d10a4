'use client';
/** How people of this workspace write dates and numbers. */
import { createContext, useContext, type ReactNode } from 'react';
import { showDate, STYLES, type DateOrder, type DateStyle } from '@/core/form/date-style';
import { readTypedNumber, showNumber, type NumberStyle } from '@/core/form/number-style';

export interface Writing {
  dates: DateStyle;
  numbers: NumberStyle;
}

const Style = createContext<Writing>({ dates: 'iso', numbers: 'point' });

export function WritingIn({ writing, children }: { writing: Writing; children: ReactNode }) {
  return <Style value={writing}>{children}</Style>;
}

export interface Dates {
  style: DateStyle;
  order: DateOrder;
  /** Such as `YYYY-MM-DD`. */
  looks: string;
  /** A stored date, or the day of an instant (UTC), for people to read. */
  day(date: string): string;
  /** The day and minute of an instant, in UTC. */
  moment(instant: string): string;
}

export function useDates(): Dates {
  const { dates: style } = useContext(Style);
  const day = (date: string) => showDate(date.slice(0, 10), style);
  return {
    style,
    order: STYLES[style].order,
    looks: STYLES[style].looks,
    day,
    moment: (instant) => `${day(instant)} ${instant.slice(11, 16)} UTC`,
  };
}

export interface Numbers {
  style: NumberStyle;
  /** Null for what is no number. */
  read(text: string): number | null;
  show(value: number, decimals?: number): string;
}

export function useNumbers(): Numbers {
  const { numbers: style } = useContext(Style);
  return {
    style,
    read: (text) => readTypedNumber(text, style),
    show: (value, decimals) => showNumber(value, style, decimals),
  };
}
