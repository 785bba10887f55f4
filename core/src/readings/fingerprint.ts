import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Sample } from './sample.js';

/** Readings as little-endian doubles. */
function bytesOf(values: Float64Array): Uint8Array {
  const bytes = new Uint8Array(values.length * 8);
  const view = new DataView(bytes.buffer);
  values.forEach((value, i) => view.setFloat64(i * 8, value, true));
  return bytes;
}

/**
 * SHA-256 of the readings used, as little-endian doubles in row order, in hexadecimal: the same on every machine. In a sample with parts the
 * names, sizes and readings of the parts follow.
 */
export function fingerprintOf({ values, groups }: Pick<Sample, 'values' | 'groups'>): string {
  const hash = sha256.create().update(bytesOf(values));
  for (const { name, values: own } of groups?.samples ?? []) {
    hash.update(utf8ToBytes(JSON.stringify([name, own.length]))).update(bytesOf(own));
  }
  return bytesToHex(hash.digest());
}
