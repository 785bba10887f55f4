import { describe, expect, it } from 'vitest';
import { normalCumulative } from '../../src/numeric/standard-normal.js';
import { fillNormals } from '../../src/random/normal.js';
import { fillExponentials, nextExponential } from '../../src/random/exponential.js';
import { createStream, jump, nextOpenUnit, nextWord } from '../../src/random/stream.js';

/** The published algorithm of xoshiro128** 1.1 (Blackman & Vigna 2021) in unbounded integers, as plainly as it can be written. */
function* published(seed: readonly bigint[]): Generator<bigint> {
  const mask = 0xffffffffn;
  const rotl = (x: bigint, k: bigint) => ((x << k) | (x >> (32n - k))) & mask;
  const s = [...seed] as [bigint, bigint, bigint, bigint];
  for (;;) {
    yield (rotl((s[1] * 5n) & mask, 7n) * 9n) & mask;
    const t = (s[1] << 9n) & mask;
    s[2] ^= s[0];
    s[3] ^= s[1];
    s[1] ^= s[2];
    s[0] ^= s[3];
    s[2] ^= t;
    s[3] = rotl(s[3], 11n);
  }
}

const asBits = (state: Int32Array) =>
  state.reduce((bits, word, i) => bits | (BigInt(word >>> 0) << BigInt(32 * i)), 0n);

/** One step of the state as a matrix over GF(2), column by column: what each single bit becomes. */
function stepMatrix(): bigint[] {
  return Array.from({ length: 128 }, (_, bit) => {
    const state = new Int32Array(4);
    state[bit >> 5] = 1 << (bit & 31);
    nextWord(state);
    return asBits(state);
  });
}

function apply(matrix: readonly bigint[], bits: bigint): bigint {
  let out = 0n;
  for (let i = 0; i < 128; i++) if ((bits >> BigInt(i)) & 1n) out ^= matrix[i]!;
  return out;
}

describe('random streams', () => {
  it('draw the words of the published generator', () => {
    const state = Int32Array.from([1, 2, 3, 4]);
    const expected = published([1n, 2n, 3n, 4n]);
    for (let i = 0; i < 1000; i++) expect(nextWord(state) >>> 0).toBe(Number(expected.next().value));
  });

  it('jump by exactly 2^64 steps: the step matrix squared 64 times', () => {
    let matrix = stepMatrix();
    for (let i = 0; i < 64; i++) {
      const square = matrix;
      matrix = square.map((column) => apply(square, column));
    }
    const state = createStream(4711, 0);
    const expected = apply(matrix, asBits(state));
    jump(state);
    expect(asBits(state)).toBe(expected);
  });

  it('of any number are as many jumps away', () => {
    const walked = createStream(4711, 0);
    for (let index = 0; index <= 300; index++, jump(walked)) expect(createStream(4711, index)).toEqual(walked);
    for (const index of [4_095, 65_537, 1_000_000, 2 ** 31 + 5, 2 ** 32 - 2]) {
      const on = createStream(7, index);
      jump(on);
      expect(createStream(7, index + 1)).toEqual(on);
    }
  });

  it('are the same for the same seed and index, and differ otherwise', () => {
    expect(createStream(1, 3)).toEqual(createStream(1, 3));
    const firsts = [createStream(1, 0), createStream(1, 1), createStream(2, 0), createStream(0, 0)].map(nextWord);
    expect(new Set(firsts).size).toBe(4);
  });

  it('give units strictly between 0 and 1', () => {
    const state = createStream(9, 0);
    let sum = 0;
    let without = 0;
    for (let i = 0; i < 100_000; i++) {
      const u = nextOpenUnit(state);
      if (!(u > 0 && u < 1)) without++;
      sum += u;
    }
    expect(without).toBe(0);
    expect(Math.abs(sum / 100_000 - 0.5)).toBeLessThan(4 * Math.sqrt(1 / 12 / 100_000));
  });
});

describe('normal draws', () => {
  const n = 400_000;
  const draws = new Float64Array(n);
  fillNormals(createStream(20, 0), draws);

  it('have the moments of a standard normal within four standard errors', () => {
    const moment = (k: number) => draws.reduce((sum, z) => sum + z ** k, 0) / n;
    expect(Math.abs(moment(1))).toBeLessThan(4 * Math.sqrt(1 / n));
    expect(Math.abs(moment(2) - 1)).toBeLessThan(4 * Math.sqrt(2 / n));
    expect(Math.abs(moment(3))).toBeLessThan(4 * Math.sqrt(15 / n));
    expect(Math.abs(moment(4) - 3)).toBeLessThan(4 * Math.sqrt(96 / n));
  });

  it('fill the curve evenly, wedges and tail included: 200 equal cells, chi-square within its range', () => {
    const cells = new Float64Array(200);
    for (const z of draws) cells[Math.floor(normalCumulative(z) * 200)]!++;
    const chiSquare = cells.reduce((sum, count) => sum + (count - n / 200) ** 2 / (n / 200), 0);
    expect(Math.abs(chiSquare - 199)).toBeLessThan(4 * Math.sqrt(2 * 199));
  });

  it('exceed the last layer of the ziggurat with the correct probability', () => {
    const edge = 3.6541528853610088;
    const expected = 2 * normalCumulative(-edge) * n;
    const found = draws.filter((z) => Math.abs(z) > edge).length;
    expect(Math.abs(found - expected)).toBeLessThan(4 * Math.sqrt(expected));
  });

  it('continue where the last fill ended', () => {
    const whole = new Float64Array(10);
    fillNormals(createStream(3, 2), whole);
    const state = createStream(3, 2);
    const [a, b] = [new Float64Array(4), new Float64Array(6)];
    fillNormals(state, a);
    fillNormals(state, b);
    expect([...a, ...b]).toEqual([...whole]);
  });

  it('exponentials drawn in a block are those drawn one by one', () => {
    const block = createStream(3, 1);
    const single = createStream(3, 1);
    const out = new Float64Array(20_000);
    fillExponentials(block, out);
    expect(out.every((x) => x === nextExponential(single))).toBe(true);
    expect([...block]).toEqual([...single]);
  });
});
