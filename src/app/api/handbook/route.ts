import { handbook } from '@/server/handbook';
import { answer } from '@/server/http/request';

/** All pages of the handbook. */
export async function GET() {
  return answer(() => Promise.resolve(Response.json(handbook())));
}
