import * as z from 'zod';
import { answer, readBody } from '@/server/request';
import { addForm } from '@/server/store';

const NewForm = z.strictObject({ title: z.string().trim().min(1).max(120) });

/** Begins a form. */
export async function POST(request: Request) {
  return answer(async () => Response.json({ name: await addForm((await readBody(request, NewForm)).title) }, { status: 201 }));
}
