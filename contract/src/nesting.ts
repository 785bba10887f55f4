/** Deeper nesting does not occur in readings, results or studies and would only take time to read. */
export const DEEPEST = 64;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** How deep lists and objects nest in a JSON text that comes in pieces, without reading it. UTF-8 only. */
export class Nesting {
  #depth = 0;
  #quoted = false;
  #escaped = false;
  deepest = 0;

  add(json: Uint8Array): void {
    for (const byte of json) {
      if (this.#escaped) this.#escaped = false;
      else if (this.#quoted) {
        if (byte === BACKSLASH) this.#escaped = true;
        else if (byte === QUOTE) this.#quoted = false;
      } else if (byte === QUOTE) this.#quoted = true;
      else if (byte === 0x5b || byte === 0x7b) this.deepest = Math.max(this.deepest, ++this.#depth);
      else if (byte === 0x5d || byte === 0x7d) this.#depth--;
    }
  }
}
