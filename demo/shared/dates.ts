/** Dates: calculations with days, written as YYYY-MM-DD, that several forms need. */

/** Days from one to another, both counted. */
export function daysFromTo(from: string, to: string): number {
  return Temporal.PlainDate.from(from).until(to, { largestUnit: "days" }).days + 1;
}

export function monthsAfter(day: string, months: number): string {
  return Temporal.PlainDate.from(day).add({ months }).toString();
}

/** A day that must not lie in the future, such as the one on which something was collected. */
export function notAfterToday(field: Field<string>): void {
  const today = Temporal.Now.plainDateISO().toString();
  field.problem = field.value !== null && field.value > today ? "This day is still to come." : null;
}
