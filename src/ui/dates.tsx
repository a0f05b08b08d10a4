'use client';
/** How dates are written in this workspace. */
import { createContext, useContext, type ReactNode } from 'react';
import { showDate, STYLES, type DateOrder, type DateStyle } from '@/core/form/date-style';

const Style = createContext<DateStyle>('iso');

export function DatesIn({ dates, children }: { dates: DateStyle; children: ReactNode }) {
  return <Style value={dates}>{children}</Style>;
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
  const style = useContext(Style);
  const day = (date: string) => showDate(date.slice(0, 10), style);
  return {
    style,
    order: STYLES[style].order,
    looks: STYLES[style].looks,
    day,
    moment: (instant) => `${day(instant)} ${instant.slice(11, 16)} UTC`,
  };
}
