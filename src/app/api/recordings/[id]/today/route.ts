import { compiledScripts, compiledServices } from '@/server/machines/compiled';
import { Refusal } from '@/server/http/refusal';
import { answer } from '@/server/routes/request';
import { idOf, readRecording } from '@/server/releases/recordings';
import { readForm, readScripts, readServices, readTables } from '@/server/content/read';

/** What the form of a recording runs with today, to play the recording with it. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const id = idOf((await params).id);
    const recording = id === null ? null : await readRecording(id);
    const form = recording === null ? null : await readForm(recording.form);
    if (form === null) throw new Refusal(404, 'There is no such recording, or no such form.');
    const [sources, tables, services] = await Promise.all([
      readScripts(form),
      readTables(),
      readServices(),
    ]);
    const [running, answering] = await Promise.all([
      compiledScripts(sources, 'traced'),
      compiledServices(services),
    ]);
    return Response.json({ form, tables, services, answering, ...running, traced: true });
  });
}
