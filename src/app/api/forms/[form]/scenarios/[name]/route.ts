import { answer } from '@/server/request';
import { removeScenario } from '@/server/store';

export async function DELETE(_request: Request, { params }: { params: Promise<{ form: string; name: string }> }) {
  return answer(async () => {
    const { form, name } = await params;
    await removeScenario(form, name);
    return new Response(null, { status: 204 });
  });
}
