/** The expressions whose values a traced script reports: what it assigns and returns, and the conditions it meets. Its code refers to them by number. */

/** Characters of an expression's source that stand for it. */
const LONGEST = 80;

/** The name under which an expression is reported. */
export const nameOf = (source: string) => source.slice(0, LONGEST);

export class Expressions {
  readonly texts: string[] = [];
  readonly conditions: number[] = [];
  readonly #numbers = new Map<string, number>();

  /** A condition and what is assigned have numbers of their own where they read the same. */
  numberOf(source: string, isCondition: boolean): number {
    const text = nameOf(source);
    const key = `${isCondition} ${text}`;
    let number = this.#numbers.get(key);
    if (number === undefined) {
      number = this.texts.push(text) - 1;
      this.#numbers.set(key, number);
      if (isCondition) this.conditions.push(number);
    }
    return number;
  }
}
