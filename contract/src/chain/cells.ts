import { CellsDigest } from './digest.js';
import { BLOCK, filled, type CellBlocks } from './source.js';

/** A part of a column: a block as it is stored, or, once a change has touched it, texts of its own, which are kept as JSON while they are not used. */
interface Part {
  length: number;
  block: number | null;
  json: string | null;
  texts: string[] | null;
}

const NOTHING_STORED: CellBlocks = { count: 0, read: () => Promise.resolve([]) };
/** Parts whose texts are held at once. */
const MOST_HELD = 50;
/** Blocks that are read at once where all are read. */
const READ_AT_ONCE = 20;

const partsOf = (texts: readonly string[]): Part[] =>
  Array.from({ length: Math.ceil(texts.length / BLOCK) }, (_, i) => {
    const own = texts.slice(i * BLOCK, (i + 1) * BLOCK);
    return { length: own.length, block: null, json: JSON.stringify(own), texts: null };
  });

/**
 * The cells of a column at one moment of its record. What no change has touched is read when it is needed and not held: a check of the largest study takes little more
 * memory than its changes do. Rows count from 1; cells behind the end are empty.
 */
export class Cells {
  #parts: Part[];
  /** Parts with their texts, the one used longest ago first. */
  readonly #held = new Set<Part>();

  constructor(private readonly stored: CellBlocks) {
    this.#parts = Array.from({ length: stored.count }, (_, block) => ({
      ...{ length: BLOCK, block, json: null, texts: null },
    }));
  }

  static of(texts: readonly string[]): Cells {
    const cells = new Cells(NOTHING_STORED);
    cells.#parts = partsOf(texts);
    return cells;
  }

  get isEmpty(): boolean {
    return this.#parts.length === 0;
  }

  async read(row: number, count: number): Promise<string[]> {
    const result: string[] = [];
    for (const { part, from, to } of this.#within(row, count))
      for (const text of (await this.#open(part)).slice(from, to)) result.push(text);
    while (result.length < count) result.push('');
    return result;
  }

  async write(row: number, texts: readonly string[]): Promise<void> {
    this.#reach(row - 1 + texts.length);
    let written = 0;
    for (const { part, from, to } of this.#within(row, texts.length)) {
      const own = await this.#change(part);
      for (let i = from; i < to; i++) own[i] = texts[written++]!;
    }
  }

  /** Takes rows out. @param rows their numbers, rising @returns what they held */
  async take(rows: readonly number[]): Promise<string[]> {
    const taken: string[] = [];
    let before = 0;
    for (const part of this.#parts) {
      const { length } = part;
      if (taken.length < rows.length && rows[taken.length]! <= before + length) {
        const left: string[] = [];
        for (const [i, text] of (await this.#change(part)).entries())
          (rows[taken.length] === before + i + 1 ? taken : left).push(text);
        Object.assign(part, { texts: left, length: left.length });
      }
      before += length;
    }
    for (const part of this.#parts) if (part.length === 0) this.#held.delete(part);
    this.#parts = this.#parts.filter(({ length }) => length > 0);
    while (taken.length < rows.length) taken.push('');
    return taken;
  }

  /** Puts rows in. @param rows their numbers once they are in, rising @param texts what they hold; empty where there is none */
  async put(rows: readonly number[], texts: readonly string[]): Promise<void> {
    let at = 0;
    let before = 0;
    for (let first = 0; first < rows.length;) {
      let end = first + 1;
      while (end < rows.length && rows[end] === rows[end - 1]! + 1) end++;
      const row = rows[first]!;
      this.#reach(row - 1);
      while (at < this.#parts.length && before + this.#parts[at]!.length < row - 1) before += this.#parts[at++]!.length;
      const run = Array.from({ length: end - first }, (_, i) => texts[first + i] ?? '');
      await this.#putRun(at, row - 1 - before, run);
      first = end;
    }
  }

  async #putRun(at: number, place: number, run: readonly string[]): Promise<void> {
    const part = this.#parts[at];
    const own = part ? await this.#change(part) : [];
    const whole = [...own.slice(0, place), ...run, ...own.slice(place)];
    if (part && whole.length <= 2 * BLOCK) {
      Object.assign(part, { texts: whole, length: whole.length });
      return;
    }
    if (part) this.#held.delete(part);
    this.#parts.splice(at, 1, ...partsOf(whole));
  }

  /** True where anything but empty cells stands behind a row. */
  async anyBehind(row: number): Promise<boolean> {
    let before = this.#lengthBefore(row + 1);
    for await (const texts of this.all(row + 1)) {
      if (texts.some((text, i) => text !== '' && before + i >= row)) return true;
      before += texts.length;
    }
    return false;
  }

  /** As CellsDigest. */
  async digest(): Promise<string> {
    const digest = new CellsDigest();
    for await (const texts of this.all()) for (const text of texts) digest.add(text);
    return digest.end();
  }

  /** All cells in order, some at a time, from the part that holds a row. */
  async *all(row = 1): AsyncGenerator<readonly string[]> {
    let before = 0;
    for (let at = 0; at < this.#parts.length;) {
      const part = this.#parts[at]!;
      before += part.length;
      if (before < row) at++;
      else if (part.block === null) {
        yield part.texts ?? (JSON.parse(part.json!) as string[]);
        at++;
      } else {
        const count = this.#storedFrom(at);
        for (const texts of await this.stored.read(part.block, count)) yield filled(texts);
        before += (count - 1) * BLOCK;
        at += count;
      }
    }
  }

  /** Cells in the parts before the one that holds a row. */
  #lengthBefore(row: number): number {
    let before = 0;
    for (const { length } of this.#parts) {
      if (before + length >= row) break;
      before += length;
    }
    return before;
  }

  /** How many parts from one on are blocks one after the other. */
  #storedFrom(at: number): number {
    const first = this.#parts[at]!.block!;
    let count = 1;
    while (count < READ_AT_ONCE && this.#parts[at + count]?.block === first + count) count++;
    return count;
  }

  /** The parts that hold some rows, each with the places in it. */
  *#within(row: number, count: number): Generator<{ part: Part; from: number; to: number }> {
    let before = 0;
    for (const part of this.#parts) {
      const from = Math.max(0, row - 1 - before);
      const to = Math.min(part.length, row - 1 + count - before);
      if (to <= 0) return;
      before += part.length;
      if (from < to) yield { part, from, to };
    }
  }

  /** Empty cells up to a row, where the column is shorter. */
  #reach(row: number): void {
    const length = this.#parts.reduce((sum, part) => sum + part.length, 0);
    if (length < row) this.#parts.push(...partsOf(new Array<string>(row - length).fill('')));
  }

  async #open(part: Part): Promise<string[]> {
    if (!part.texts) {
      const read = async () => filled((await this.stored.read(part.block!, 1))[0] ?? []);
      part.texts = part.json === null ? [...(await read())] : (JSON.parse(part.json) as string[]);
    }
    this.#held.delete(part);
    this.#held.add(part);
    if (this.#held.size > MOST_HELD) this.#letGo();
    return part.texts;
  }

  /** The texts of a part, to be changed in place or replaced. */
  async #change(part: Part): Promise<string[]> {
    const texts = await this.#open(part);
    Object.assign(part, { block: null, json: null });
    return texts;
  }

  #letGo(): void {
    const [oldest] = this.#held;
    this.#held.delete(oldest!);
    if (oldest!.block === null) oldest!.json = JSON.stringify(oldest!.texts);
    oldest!.texts = null;
  }
}
