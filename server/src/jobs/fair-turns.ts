type Turn = () => Promise<void>;

/** Hands out a few lanes of work so that every owner who wants one gets one in turn, however much another has waiting. */
export class FairTurns {
  /** Who waits, in the order of their next turns. */
  readonly #waiting = new Map<string, Turn[]>();
  #free: number;

  constructor(lanes: number) {
    this.#free = lanes;
  }

  /** Does the work once it is the owner's turn and a lane is free. */
  take<T>(owner: string, work: () => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const turns = this.#waiting.get(owner) ?? [];
      turns.push(() => work().then(resolve, reject));
      this.#waiting.set(owner, turns);
      this.#next();
    });
  }

  #next(): void {
    while (this.#free > 0) {
      const [first] = this.#waiting;
      if (!first) return;
      const [owner, turns] = first;
      const turn = turns.shift()!;
      // Who has had a turn goes to the end.
      this.#waiting.delete(owner);
      if (turns.length > 0) this.#waiting.set(owner, turns);
      this.#free--;
      void turn().finally(() => {
        this.#free++;
        this.#next();
      });
    }
  }
}
