import { BLOCK } from '@verdict/contract';
import { BLOCKS_AT_ONCE, writeBlocks, type Block } from './cells.js';
import type { Queries } from './database.js';

/** Writes new columns of which some cells come at a time, one column after the other. */
export class BlockWriter {
  #column = '';
  #block = 0;
  #open: string[] = [];
  #ready: Block[] = [];

  constructor(private readonly q: Queries) {}

  async add(columnId: string, texts: readonly string[]): Promise<void> {
    if (columnId !== this.#column) {
      this.#close();
      [this.#column, this.#block] = [columnId, 0];
    }
    for (const text of texts) {
      this.#open.push(text);
      if (this.#open.length === BLOCK) this.#close();
    }
    if (this.#ready.length >= BLOCKS_AT_ONCE) await this.#write();
  }

  #close(): void {
    if (this.#open.length === 0) return;
    this.#ready.push({ columnId: this.#column, block: this.#block++, cells: this.#open });
    this.#open = [];
  }

  async #write(): Promise<void> {
    const ready = this.#ready;
    this.#ready = [];
    await writeBlocks(this.q, ready);
  }

  async end(): Promise<void> {
    this.#close();
    await this.#write();
  }
}
