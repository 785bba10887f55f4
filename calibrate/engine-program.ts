/** Runs in the other engine: prints key and digest of each case. It has neither Node's modules nor a page. */
// First: the modules of the core use it while they are read.
import './es2023.ts';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { inThisThread } from '../core/src/analyses/registry.ts';
import { drive } from '../core/src/road/runner.ts';
import { toWire, withoutWords } from '../core/src/road/wire.ts';
import type { BITS_CASES } from '../core/test/bits-cases.ts';

declare const CASES: typeof BITS_CASES;
declare const print: (line: string) => void;

for (const { key, job } of CASES) {
  const bits = JSON.stringify(withoutWords(toWire(await drive(inThisThread, job))));
  print(JSON.stringify([key, bytesToHex(sha256(new TextEncoder().encode(bits)))]));
}
