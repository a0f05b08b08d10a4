import { handbook } from '@/server/routes/handbook';
import { answer } from '@/server/routes/request';

/** All pages of the handbook. */
export async function GET(request: Request) {
  return answer(request, () => Promise.resolve(Response.json(handbook())));
}
