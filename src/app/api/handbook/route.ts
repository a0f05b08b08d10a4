import { handbook } from '@/server/handbook';
import { answer } from '@/server/http/request';

/** All pages of the handbook. */
export async function GET(request: Request) {
  return answer(request, () => Promise.resolve(Response.json(handbook())));
}
