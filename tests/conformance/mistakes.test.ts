/** The corpus: each fault is found where it is and nothing is found in its mended twin; run, the fault does harm. */
import { describe, expect, test } from 'vitest';
import { demo, foundIn } from '../support/demo-language';
import { direct } from '../support/hosts';
import { corpus, type Pair } from './corpus';

test('the corpus has forty-one pairs', () => {
  expect(corpus).toHaveLength(41);
});

describe.each(corpus)('$code: $about', (pair) => {
  test('the fault is found', () => {
    expect(foundIn(pair.form, pair.faulty).map(({ code }) => code)).toContain(pair.code);
  });

  test('its mended twin is silent', () => {
    expect(foundIn(pair.form, pair.mended)).toEqual([]);
  });
});

describe('what each fault does to the person filling in', () => {
  test.each(corpus.filter((pair): pair is Required<Pair> => pair.proof !== undefined))(
    '$code: $about',
    ({ form, faulty, mended, proof }) => {
      const after = (text: string) => {
        const use = direct({
          form: demo.forms.find((one) => one.form.name === form)!.form,
          tables: demo.tables,
          services: demo.services,
          scripts: { x: text },
        });
        for (const step of proof.steps) use.do(step);
        return use.part(proof.part)[proof.aspect as 'value'] ?? null;
      };
      expect(after(mended)).toEqual(proof.is);
      expect(after(faulty)).not.toEqual(proof.is);
    },
  );
});
