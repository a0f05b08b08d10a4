/** What the scripts of a form steer, as far as reading them without running them can tell. */
import type { Form } from '../form/definition';
import { FormLanguage } from '../language/language-service';
import type { Surface } from '../language/typings';
import type { Source } from '../script/header';
import type { Steered } from './to-json-schema';

/** `libs` are the texts of the ECMAScript library's declarations. */
export function steeredBy(
  surface: Omit<Surface, 'form'>,
  form: Form,
  scripts: readonly Source[],
  libs: Record<string, string>,
): Steered {
  const language = new FormLanguage(libs);
  language.surround({ ...surface, form });
  for (const script of scripts) language.put(script);
  return new Set(
    language
      .map()
      .steers.flatMap(({ part, aspects }) => aspects.map((aspect) => `${part} ${aspect}`)),
  );
}
