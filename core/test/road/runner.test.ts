import { describe, expect, it } from 'vitest';
import { advance, inThisThread } from '../../src/analyses/registry.js';
import { orderBook } from '../../src/road/order-book.js';
import { digestOf, remembering } from '../../src/road/remembered.js';
import { drive, Stopped, type Executor } from '../../src/road/runner.js';
import type { NormalityResult } from '../../src/analyses/fit/normality-result.js';
import type { normalityAnalysis } from '../../src/analyses/fit/normality.js';
import { ANALYSES, analysisById } from '../../src/analyses/registry.js';
import { chunkCount, performChunk, type KernelOrder } from '../../src/road/kernels.js';
import type { AnyAnalysis, SentencePart } from '../../src/road/analysis.js';
import { isField, methodSentence } from '../../src/road/method-sentence.js';
import { differencesBetween, notFiniteIn, toWire } from '../../src/road/wire.js';
import { jobOf, sample } from '../asked.js';

/** So many lanes, whose chunks come back in a shuffled order. */
const shuffled = (lanes: number): Executor => ({
  lanes,
  advance: async (id, request, sample, answered) => advance(id, request, sample, answered),
  chunk: async (order, k) => {
    for (let i = 0; i < (k * 7 + lanes) % 5; i++) await Promise.resolve();
    return performChunk(order, k);
  },
});

describe('running an analysis', () => {
  it.each(ANALYSES.map((a) => a.id))('%s gives the same bits with one lane and with three', async (id) => {
    const job = jobOf(id);
    const one = JSON.stringify(toWire(await drive(inThisThread, job)));
    expect(JSON.stringify(toWire(await drive(shuffled(3), job)))).toBe(one);
  });

  it('never gives out a figure that is not finite, however deep', () => {
    expect(notFiniteIn({ a: [1, { b: Float64Array.of(2, NaN) }] })).toBe('a.1.b.1');
    expect(notFiniteIn({ a: [1, null, 'NaN'], b: { c: 0 } })).toBeNull();
    const describing = analysisById('describe') as { run: unknown };
    const run = describing.run;
    describing.run = function* () {
      yield* [];
      return { available: true, mean: Infinity };
    };
    const stage = advance('describe', { column: 'thickness' }, sample, []);
    describing.run = run;
    expect(stage).toMatchObject({ done: true, result: { available: false, n: 40 } });
    expect((stage as { result: { reason: string } }).result.reason).toContain('mean');
  });

  it('reports progress up to 1 and the partial result before the first chunk', async () => {
    const seen: { share: number; partial: unknown }[] = [];
    await drive(
      inThisThread,
      { id: 'normality', request: { column: 'x' }, sample },
      { onProgress: (p) => seen.push(p) },
    );
    expect(seen[0]!.share).toBe(0);
    expect(seen[0]!.partial).toMatchObject({ n: 40 });
    expect(seen.at(-1)!.share).toBe(1);
    expect(seen.every((p, i) => i === 0 || p.share >= seen[i - 1]!.share)).toBe(true);
  });

  it('gives glimpses of what is known by now, which end in the same bits', async () => {
    const analysis = analysisById('normality') as unknown as typeof normalityAnalysis;
    const request = analysis.request.parse({ column: 'x', replicates: 9_999 });
    const job = { id: 'normality', request, sample };
    const seen: (number | undefined)[] = [];
    const result = await drive(shuffled(3), job, {
      onProgress: ({ partial, soFar }) => {
        const glimpsed = analysis.glimpse!(request, partial as NormalityResult, soFar()) as NormalityResult;
        const [test] = glimpsed.tests;
        seen.push(test!.pSimulated?.replicates);
      },
    });
    // Nothing at first, then more and more, never a hole that counts.
    expect(seen[0]).toBeUndefined();
    const counts = seen.filter((count) => count !== undefined);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(counts[0]).toBeLessThan(9_999);
    expect(counts.at(-1)).toBe(9_999);
    expect(JSON.stringify(toWire(result))).toBe(JSON.stringify(toWire(await drive(inThisThread, job))));
  });

  it('hands out no further chunk once it is stopped', async () => {
    let chunks = 0;
    const counting: Executor = { ...inThisThread, chunk: async (order, k) => (chunks++, performChunk(order, k)) };
    const job = { id: 'normality', request: { column: 'x' }, sample };
    await expect(drive(counting, job, { stopped: () => chunks >= 2 })).rejects.toThrow(Stopped);
    expect(chunks).toBe(2);
  });

  it('ends every lane at once when a chunk fails, with its message', async () => {
    let chunks = 0;
    const failing: Executor = {
      ...shuffled(3),
      chunk: async (order, k) => {
        if (++chunks === 5) throw new Error('out of memory');
        await Promise.resolve();
        return performChunk(order, k);
      },
    };
    const job = { id: 'normality', request: { column: 'x', replicates: 100_000 }, sample };
    await expect(drive(failing, job)).rejects.toThrow('out of memory');
    const given = chunks;
    await new Promise((resolve) => setTimeout(resolve, 0));
    expect(chunks).toBe(given);
    expect(given).toBeLessThan(10);
  });

  it('remembers the chunks of an order: another level runs none again, another seed all, with the same bits', async () => {
    let chunks = 0;
    const counting: Executor = { ...inThisThread, chunk: async (order, k) => (chunks++, performChunk(order, k)) };
    const pool = remembering(counting, 1_000_000);
    const job = (more: object) => ({ id: 'normality', request: { column: 'x', ...more }, sample });
    const first = await drive(pool, job({ alpha: 0.05 }));
    const all = chunks;
    expect(await drive(pool, job({ alpha: 0.05 }))).toEqual(first);
    const stricter = await drive(pool, job({ alpha: 0.01 }));
    expect(chunks).toBe(all);
    expect(stricter).toEqual(await drive(inThisThread, job({ alpha: 0.01 })));
    await drive(pool, job({ seed: 1 }));
    expect(chunks).toBe(2 * all);
  });

  it('forgets the orders used longest ago where there is no room, and chunks that failed', async () => {
    let chunks = 0;
    let fails = true;
    const counting: Executor = {
      ...inThisThread,
      chunk: async (order, k) => {
        chunks++;
        if (fails) throw new Error('once');
        return performChunk(order, k);
      },
    };
    const pool = remembering(counting, 25);
    const order = (seed: number): KernelOrder => ({
      ...{
        kernel: 'normality-replicates',
        input: { test: 'anderson-darling', n: 10, population: 'normal', rounding: null },
      },
      ...{ seed, firstStream: 0, replicates: 20, chunkSize: 10 },
    });
    await expect(pool.chunk(order(1), 0)).rejects.toThrow('once');
    fails = false;
    const first = await pool.chunk(order(1), 0);
    expect(await pool.chunk(order(1), 0)).toBe(first);
    expect(chunks).toBe(2);
    // 30 numbers are too many for the room: the first order goes.
    await pool.chunk(order(2), 0);
    await pool.chunk(order(2), 1);
    expect(await pool.chunk(order(1), 0)).toEqual(first);
    expect(chunks).toBe(5);
    await pool.chunk(order(2), 1);
    expect(chunks).toBe(6);
  });

  it('knows long columns by a digest of their bits: another reading, another order', () => {
    const values = Float64Array.from({ length: 5_000 }, (_, i) => Math.sin(i));
    const digest = digestOf(values);
    expect(digestOf(values.slice())).toBe(digest);
    expect(digestOf(values.with(4_321, 0.5))).not.toBe(digest);
    expect(digestOf(Float64Array.of(0))).not.toBe(digestOf(Float64Array.of(-0)));
    const turned = values.slice().reverse();
    const seen = new Set([digest, digestOf(turned), digestOf(values.subarray(1)), digestOf(new Float64Array(5_000))]);
    expect(seen.size).toBe(4);
    // None of ten thousand that differ by one bit come out alike.
    const many = Array.from({ length: 10_000 }, (_, i) => digestOf(Float64Array.of(1, 1 + i * Number.EPSILON)));
    expect(new Set(many).size).toBe(10_000);
  });

  it('gives every order streams of its own, unless it is to draw what another drew', () => {
    const book = orderBook(7, 100);
    const input = { test: 'anderson-darling', n: 10, population: 'normal', rounding: null } as const;
    const work = { kernel: 'normality-replicates', input } as const;
    const first = book.add(work, 250);
    book.add(work, 250, first);
    book.add(work, 100);
    book.add(work, 1);
    expect(book.orders.map(({ firstStream }) => firstStream)).toEqual([0, 0, 3, 4]);
    expect(book.orders.every(({ seed, chunkSize }) => seed === 7 && chunkSize === 100)).toBe(true);
  });

  it('draws chunk k from its own stream, the last chunk shorter', async () => {
    const order: KernelOrder = {
      kernel: 'normality-replicates',
      input: { test: 'anderson-darling', n: 10, population: 'normal', rounding: null },
      seed: 1,
      firstStream: 0,
      replicates: 25,
      chunkSize: 10,
    };
    expect(chunkCount(order)).toBe(3);
    expect(await performChunk(order, 2)).toHaveLength(5);
    expect((await performChunk(order, 1))[0]).not.toBe((await performChunk(order, 0))[0]);
    expect(await performChunk({ ...order, firstStream: 1 }, 0)).toEqual(await performChunk(order, 1));
  });

  it('refuses settings it does not know and values out of range, with the field named', () => {
    const normality = analysisById('normality').request;
    expect(normality.safeParse({ column: 'x', alhpa: 0.05 }).success).toBe(false);
    const wrong = normality.safeParse({ column: 'x', alpha: 5 });
    expect(wrong.error!.issues[0]).toMatchObject({ path: ['alpha'] });
    expect(wrong.error!.issues[0]!.message).toContain('between 0 and 1');
    expect(() => analysisById('guess')).toThrow('There is no analysis “guess”');
  });

  it('writes the method as a sentence with its settings, leaving out what has no meaning', () => {
    const { method } = analysisById('probability-plot') as { method: readonly SentencePart[] };
    const settings = {
      ...{ column: 'thickness', positions: 'blom', family: 'normal', threshold: 'none', axis: 'percent' },
      ...{ sides: 'readings-across', line: 'fit', band: 'whole-plot' },
      confidence: 0.9,
      replicates: 10_000,
      seed: 7,
    };
    expect(methodSentence(method, settings)).toBe(
      'Probability plot of thickness, Blom positions, scale of the normal distribution with parameters estimated, axis: percentages, readings on the horizontal axis, with the line of the fitted distribution and a simultaneous band, 90 %, from 10\u202f000 simulated samples, seed 7.',
    );
    expect(methodSentence(method, { ...settings, band: 'none' })).toMatch(/and no band\.$/);
  });
});

describe('a field and the request behind it', () => {
  const fields = ANALYSES.flatMap((analysis) => {
    const { id, method, request } = analysis as unknown as AnyAnalysis;
    const parts = typeof method === 'function' ? [] : method;
    return parts.filter(isField).map((field) => ({ id, name: field.field, field, request }));
  });

  it.each(fields)('$id takes from $name what the field offers, and no more', ({ field, request }) => {
    // What else it needs then (limits for proportions within limits) is not this field's to say.
    const takes = (value: unknown) => {
      const { error } = request.safeParse({ column: 'x', [field.field]: value });
      return !error?.issues.some(({ path }) => path[0] === field.field);
    };
    if (field.type === 'choice') {
      for (const { value } of field.options) expect(takes(value), value).toBe(true);
      expect(takes('something else')).toBe(false);
    } else if (field.type === 'choices') {
      const all = field.options.map(({ value }) => value);
      for (const value of all) expect(takes([value]), value).toBe(true);
      const [one] = all;
      expect([takes([]), takes(['something else']), takes([one, one]), takes(all)]).toEqual([
        ...[false, false, false],
        all.length <= field.most,
      ]);
    } else if (field.type === 'whole' || field.type === 'percent') {
      const beyond = field.type === 'whole' ? 1 : 1e-6;
      for (const end of [field.min, field.max]) expect(takes(end), String(end)).toBe(true);
      for (const off of [field.min - beyond, field.max + beyond]) expect(takes(off), String(off)).toBe(false);
    } else if (field.type === 'number') {
      for (const end of [field.from, field.to]) if (end !== undefined) expect(takes(end)).toBe(true);
      if (field.above !== undefined) expect([takes(field.above), takes(field.above + 1)]).toEqual([false, true]);
    } else if (field.type === 'parameters') {
      // Of the family that is asked by default: mean and sd.
      expect([takes([8, 0.1]), takes({ mean: 8, sd: 0.1 }), takes([8]), takes([8, -1])]).toEqual([
        true,
        true,
        false,
        false,
      ]);
    } else if (field.type === 'text') {
      expect([takes('x'.repeat(field.most)), takes('x'.repeat(field.most + 1)), takes(1)]).toEqual([
        true,
        false,
        false,
      ]);
    } else expect([takes([field.min, field.max]), takes([field.max + 1])]).toEqual([true, false]);
  });
});

describe('results on the wire', () => {
  it('turn typed arrays into arrays and −0 into 0, and refuse what JSON would lose', () => {
    expect(toWire({ a: Float64Array.of(1, -0), b: undefined, c: [null, 'x'] })).toEqual({ a: [1, 0], c: [null, 'x'] });
    expect(() => toWire({ p: NaN })).toThrow(RangeError);
    expect(() => toWire([Infinity])).toThrow(RangeError);
  });

  it('are compared bit by bit, with the path of each difference', () => {
    const kept = { tests: [{ p: 0.1 + 0.2 }], n: 3 };
    expect(differencesBetween(kept, { tests: [{ p: 0.30000000000000004 }], n: 3 })).toEqual([]);
    expect(differencesBetween(kept, { tests: [{ p: 0.3 }], n: 3 })).toEqual([
      { path: 'tests.0.p', kept: 0.30000000000000004, now: 0.3 },
    ]);
  });

  it('are the same in other words, and differ in a code, a label or a figure in words', () => {
    const kept = { notes: [{ code: 'few', text: 'Mind: 3 readings.' }], outcome: 'evidence', groups: ['north'] };
    const now = (other: object) => differencesBetween(kept, { ...kept, ...other }).map(({ path }) => path);
    expect(now({ notes: [{ code: 'few', text: 'Caution: only 3 readings.' }] })).toEqual([]);
    expect(now({ notes: [{ code: 'many', text: 'Caution: only 3 readings.' }] })).toEqual(['notes.0.code']);
    expect(now({ outcome: 'no-evidence' })).toEqual(['outcome']);
    expect(now({ groups: ['north kiln'] })).toEqual(['groups.0']);
    expect(now({ notes: [] })).toHaveLength(1);
  });
});

describe('what is asked wrongly', () => {
  it.each(ANALYSES.map((a) => a.id))('%s says so in a sentence of its own, whatever field and value', (id) => {
    const { request } = analysisById(id);
    const read = request as unknown as {
      shape?: object;
      in?: { shape: object };
      out?: { shape: object };
    };
    const fields = Object.keys(read.shape ?? read.in?.shape ?? read.out?.shape ?? {});
    expect(fields.length).toBeGreaterThan(1);
    const odd = [NaN, Infinity, -1e9, 1.5, 'nonsense', '', null, [], {}, true];
    for (const field of fields) {
      for (const value of odd) {
        const read = request.safeParse({ column: 'x', [field]: value });
        for (const { message } of read.success ? [] : read.error.issues) {
          expect(message, `${field}: ${String(value)}`).not.toMatch(
            /Invalid|expected|received|Too (small|big)|Unrecognized/,
          );
          expect(message, `${field}: ${String(value)}`).toMatch(/^\p{Lu}.*\.$/u);
        }
      }
    }
  });
});
