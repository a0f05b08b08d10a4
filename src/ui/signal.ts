/** Something that happens now and then, and those who want to hear of it. */
export class Signal<T = void> {
  readonly #listeners = new Set<(told: T) => void | Promise<void>>();

  /** Gives what ends listening. */
  listen(listener: (told: T) => void | Promise<void>): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Comes back once all have done what they do. */
  async tell(told: T): Promise<void> {
    await Promise.all([...this.#listeners].map((listener) => listener(told)));
  }
}
