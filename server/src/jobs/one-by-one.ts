/** Background work, one piece after the other; a piece that is already queued is not added again. */
export class OneByOne<T> {
  readonly #waiting = new Map<string, T>();
  #working = false;

  constructor(
    private readonly work: (piece: T) => Promise<void>,
    private readonly failed: (error: unknown) => void,
  ) {}

  want(key: string, piece: T): void {
    this.#waiting.set(key, piece);
    if (!this.#working) void this.#run();
  }

  async #run(): Promise<void> {
    this.#working = true;
    // What is asked for meanwhile joins the round.
    for (const [key, piece] of this.#waiting) {
      await this.work(piece).catch(this.failed);
      // Only now: asked for again while at work, it is at work already.
      this.#waiting.delete(key);
    }
    this.#working = false;
  }
}
