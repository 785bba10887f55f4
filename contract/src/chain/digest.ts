import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/** JSON in one form only (RFC 8785), so that equal contents have equal digests on every machine. */
// The package declares an ES default and is a CommonJS module.
export const canonical = canonicalize as unknown as (value: unknown) => string;

/** SHA-256 of a text in UTF-8, in hexadecimal. */
export const sha256Of = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));

/** SHA-256 of a value in its canonical JSON. */
export const digestOf = (value: unknown): string => sha256Of(canonical(value));

/** The same for a list that is given one by one. */
export class ListDigest {
  readonly #hash = sha256.create();
  #any = false;

  add(value: unknown): void {
    this.#hash.update(utf8ToBytes(`${this.#any ? ',' : '['}${canonical(value)}`));
    this.#any = true;
  }

  end(): string {
    return bytesToHex(this.#hash.update(utf8ToBytes(this.#any ? ']' : '[]')).digest());
  }
}

/**
 * SHA-256 of the cells of a column, told one after the other: each as a JSON string and a line feed. Empty cells at the end do not count, for a column is as long
 * as what it holds.
 */
export class CellsDigest {
  readonly #hash = sha256.create();
  #empty = 0;
  /** What is not hashed yet: a call for each cell takes longer than the hashing. */
  #waiting = '';

  add(text: string): void {
    if (text === '') {
      this.#empty++;
      return;
    }
    if (this.#empty > 0) this.#waiting += '""\n'.repeat(this.#empty);
    this.#empty = 0;
    this.#waiting += `${JSON.stringify(text)}\n`;
    if (this.#waiting.length > HASHED_AT_ONCE) this.#flush();
  }

  #flush(): void {
    this.#hash.update(utf8ToBytes(this.#waiting));
    this.#waiting = '';
  }

  end(): string {
    this.#flush();
    return bytesToHex(this.#hash.digest());
  }
}
const HASHED_AT_ONCE = 16_384;

export function digestOfCells(cells: readonly string[]): string {
  const digest = new CellsDigest();
  for (const text of cells) digest.add(text);
  return digest.end();
}
