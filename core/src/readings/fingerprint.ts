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

/** What tells readings beyond a limit apart: their limits, and on which side of them they lie. Nothing where there are none. */
function updateByCensored(hash: ReturnType<typeof sha256.create>, { censored }: Pick<Sample, 'censored'>): void {
  if (!censored) return;
  const { limits, sides } = censored;
  hash.update(utf8ToBytes(JSON.stringify(['beyond', limits.length]))).update(bytesOf(limits));
  hash.update(bytesOf(Float64Array.from(sides)));
}

/** What the places of labels stand for. Nothing for numbers. */
function updateByLevels(hash: ReturnType<typeof sha256.create>, { levels }: Pick<Sample, 'levels'>): void {
  if (levels) hash.update(utf8ToBytes(JSON.stringify(['levels', ...levels])));
}

/**
 * SHA-256 of the readings used, as little-endian doubles in row order, in hexadecimal: the same on every machine. In a sample with parts the
 * names, sizes and readings of the parts follow; readings beyond a limit follow those they stand beside.
 */
export function fingerprintOf(sample: Pick<Sample, 'values' | 'groups' | 'censored' | 'levels'>): string {
  const hash = sha256.create().update(bytesOf(sample.values));
  updateByLevels(hash, sample);
  updateByCensored(hash, sample);
  for (const part of sample.groups?.samples ?? []) {
    hash.update(utf8ToBytes(JSON.stringify([part.name, part.values.length]))).update(bytesOf(part.values));
    updateByLevels(hash, part);
    updateByCensored(hash, part);
  }
  return bytesToHex(hash.digest());
}
