/** Work that nobody waits for, one piece after the other; a piece that waits already is not asked for twice. */
export class OneByOne<T> {
  readonly #waiting = new Map<string, T>();
  #running: Promise<void> | null = null;

  constructor(
    private readonly work: (piece: T) => Promise<void>,
    private readonly failed: (error: unknown) => void,
  ) {}

  want(key: string, piece: T): void {
    this.#waiting.set(key, piece);
    this.#running ??= this.#run().finally(() => (this.#running = null));
  }

  async #run(): Promise<void> {
    for (const [key, piece] of this.#waiting) {
      await this.work(piece).catch(this.failed);
      // Only now: asked for again while at work, it is at work already.
      this.#waiting.delete(key);
    }
  }

  /** Drops what waits and ends when the piece at work has. */
  async close(): Promise<void> {
    this.#waiting.clear();
    await this.#running;
  }
}
