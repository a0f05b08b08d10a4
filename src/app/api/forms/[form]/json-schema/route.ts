import { answer } from '@/server/routes/request';
import { jsonSchemaOf } from '@/server/content/interchange';

/** A JSON Schema of what the form saves. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const schema = await jsonSchemaOf(form);
    return new Response(`${JSON.stringify(schema, null, 2)}\n`, {
      headers: {
        'content-type': 'application/schema+json',
        'content-disposition': `attachment; filename="${form}.schema.json"`,
      },
    });
  });
}
