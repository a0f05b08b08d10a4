/** Numbers for new records: one sequence a form, none given twice. */
import * as z from 'zod';
import { ask } from '../database/database';

export const NextNumber = z.object({ number: z.int() });

/** The number of a form's next record. One that is not used in the end is only a gap. */
export async function nextNumber(form: string): Promise<string> {
  const [came] = await ask('next number', 'select tavro_next_number($1) as number', [form]);
  return String(NextNumber.parse(came).number);
}
