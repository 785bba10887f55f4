import fc from 'fast-check';
import { describe as group, expect, it } from 'vitest';
import { boxOf } from '../../src/describe/box.js';
import { dotStacks, stackEdges } from '../../src/describe/dot-stacks.js';
import { stepsOf } from '../../src/describe/empirical.js';
import {
  binHeights,
  BIN_RULES,
  binsOf,
  countsIn,
  histogram,
  otherBins,
  type BinRequest,
} from '../../src/describe/histogram.js';
import { quartilesOfSorted } from '../../src/describe/quantiles.js';
import { countsWithin } from '../../src/describe/shares.js';
import { stemAndLeaf, stemLayout, type StemSplit } from '../../src/describe/stem-and-leaf.js';
import { stemText } from '../../src/analyses/shape/stem-and-leaf.js';
import { ordered } from '../../src/numeric/ordered.js';
import { column, columns } from '../reference.js';
import { drawn as samplesDrawn } from '../thorough.js';

const sum = (counts: ArrayLike<number>) => Array.from(counts).reduce((a, b) => a + b, 0);

/** Columns with ties, with huge and tiny spreads, with a far reading, far from 0. */
const anyColumn = fc.oneof(
  fc.array(fc.double({ min: -1e12, max: 1e12, noNaN: true }), { minLength: 1, maxLength: 60 }),
  fc.array(fc.double({ min: -1e300, max: 1e300, noNaN: true }), { minLength: 1, maxLength: 20 }),
  fc.array(fc.double({ min: 0, max: 1e-300, noNaN: true }), { minLength: 1, maxLength: 20 }),
  fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 1, maxLength: 60 }),
  fc
    .array(fc.double({ min: 0, max: 1e-3, noNaN: true }), { minLength: 1, maxLength: 20 })
    .map((all) => all.map((x) => x - 1e9)),
  fc
    .array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 30 })
    .map((all) => [...all.map((k) => 1e7 + k / 1e3), 1e9]),
  fc.array(fc.integer({ min: 0, max: 99 }), { minLength: 1, maxLength: 60 }).map((all) => all.map((k) => 8 + k / 100)),
);
const anyBins: fc.Arbitrary<BinRequest> = fc.record({
  rule: fc.constantFrom(...BIN_RULES),
  count: fc.integer({ min: 1, max: 500 }),
  width: fc.oneof(
    fc.constant(undefined),
    fc.double({ min: 1e-12, max: 1e12, noNaN: true }).filter((x) => x > 0),
  ),
  start: fc.oneof(fc.constant(undefined), fc.double({ min: -1e13, max: 1e13, noNaN: true })),
  roundUp: fc.boolean(),
});

group('the histogram', () => {
  it('has every reading in exactly one bin, for every rule, width and start', () => {
    fc.assert(
      fc.property(anyColumn, anyBins, fc.constantFrom(null, 0.01, 1), (readings, asked, resolution) => {
        const values = Float64Array.from(readings);
        const { edges, counts } = histogram(values, resolution, asked);
        expect(sum(counts)).toBe(values.length);
        expect(counts.length).toBe(edges.length - 1);
        for (let i = 1; i < edges.length; i++) expect(edges[i]).toBeGreaterThan(edges[i - 1]!);
        const last = counts.length - 1;
        counts.forEach((count, i) => {
          const inside = readings.filter(
            (x) => x >= edges[i]! && (i === last ? x <= edges[i + 1]! : x < edges[i + 1]!),
          );
          expect(count).toBe(inside.length);
        });
        for (const { bins } of otherBins(values, resolution, binsOf(values, resolution, asked))) {
          expect(sum(countsIn(values, bins.edges))).toBe(values.length);
        }
      }),
      { numRuns: samplesDrawn(400, 2_000) },
    );
  });

  it('has the number of bins or the width of its rule', () => {
    // 40 readings over a range of 39: 2^6 ≥ 40; ⌈log2 40⌉ + 1; Scott's and Freedman and Diaconis's widths worked out by hand.
    const values = Float64Array.from({ length: 40 }, (_, i) => i);
    const by = (rule: BinRequest['rule'], more: object = {}) => histogram(values, null, { rule, ...more });
    expect(by('power-of-two').counts).toHaveLength(6);
    expect(by('power-of-two').width).toBeCloseTo(6.5, 12);
    expect(by('sturges').counts).toHaveLength(7);
    expect(by('scott').width).toBeCloseTo(3.49 * 11.69045194450012 * 40 ** (-1 / 3), 10);
    expect(by('freedman-diaconis').width).toBeCloseTo(2 * 19.5 * 40 ** (-1 / 3), 12);
    expect(by('count', { count: 13 }).counts).toEqual(Array.from({ length: 13 }, (_, i) => (i === 12 ? 4 : 3)));
    expect(by('width', { width: 10 })).toMatchObject({ edges: [0, 10, 20, 30, 40], counts: [10, 10, 10, 10] });
  });

  it('has edges half a step off the grid of a known resolution, and widths of whole steps', () => {
    for (const rule of BIN_RULES) {
      const { edges, width } = histogram(Float64Array.of(7.9, 8, 8.1, 8.1, 8.2, 8.5, 9.3), 0.1, { rule, width: 0.2 });
      for (const edge of edges) expect(Math.abs(edge * 10 - Math.floor(edge * 10) - 0.5)).toBeLessThan(1e-9);
      expect(Math.abs(width * 10 - Math.round(width * 10))).toBeLessThan(1e-9);
    }
    expect(histogram(Float64Array.of(0, 1, 1, 3), 1, { rule: 'width', width: 1 })).toMatchObject({
      edges: [-0.5, 0.5, 1.5, 2.5, 3.5],
      counts: [1, 2, 0, 1],
    });
  });

  it('rounds a width up to 1, 2, 2.5 or 5 times a power of ten, from a multiple of it', () => {
    const values = Float64Array.from({ length: 100 }, (_, i) => 3.7 + i * 0.173);
    const { edges, width } = histogram(values, null, { rule: 'sturges', roundUp: true });
    expect(width).toBe(2.5);
    expect(edges[0]).toBe(2.5);
    // 0.25 is no whole number of steps of 0.1: 0.3 would not be round, so 0.5.
    const grid = Float64Array.from({ length: 20 }, (_, i) => 1 + i / 10);
    expect(histogram(grid, 0.1, { rule: 'count', count: 8, roundUp: true }).width).toBe(0.5);
  });

  it('says so when a width is no whole number of steps, when a start would lose readings, when bins are too many', () => {
    const values = Float64Array.of(8, 8.1, 8.2, 9);
    const codes = (asked: BinRequest) => histogram(values, 0.1, asked).notes.map(({ code }) => code);
    expect(codes({ rule: 'width', width: 0.25 })).toEqual(['uneven-bins']);
    expect(codes({ rule: 'width', width: 0.2, start: 8.15 })).toEqual(['start-moved']);
    expect(codes({ rule: 'width', width: 1e-6 })).toContain('widened');
    expect(codes({ rule: 'width' })).toContain('no-width');
    expect(codes({ rule: 'width' })).not.toContain('rule-without-width');
    expect(histogram(Float64Array.of(5, 5, 5, 5, 9), null, { rule: 'freedman-diaconis' }).notes[0]!.code).toBe(
      'rule-without-width',
    );
  });

  it('always has three different other binnings', () => {
    for (const [values, resolution] of [
      [column('coarse-60'), 0.5],
      [column('normal-40'), null],
      [Float64Array.of(8, 8, 9), 1],
    ] as const) {
      const own = binsOf(values, resolution, { rule: 'power-of-two' });
      const others = otherBins(values, resolution, own);
      expect(others).toHaveLength(3);
      const cuts = [own, ...others.map(({ bins }) => bins)].map(({ edges }) => Array.from(edges).join());
      expect(new Set(cuts).size).toBe(4);
    }
  });
});

group('the box', () => {
  const box = (readings: number[], whiskers: 'fences' | 'ends' = 'fences') => {
    const order = ordered(Float64Array.from(readings));
    const rows = Int32Array.from(readings, (_, i) => i + 1);
    return boxOf(order, rows, quartilesOfSorted(order.sorted, 7), whiskers);
  };

  it('has whiskers to the last reading inside the fences, and lists those outside, the most extreme first', () => {
    const found = box([10, 11, 12, 13, 14, 15, 16, 25, 40]);
    // Quartiles 12 and 16: fences at 6 and 22, outer at 0 and 28.
    expect(found.fences).toEqual({ inner: [6, 22], outer: [0, 28] });
    expect(found.whiskers).toEqual([10, 16]);
    expect(found.outside).toEqual([
      { row: 9, value: 40, far: true },
      { row: 8, value: 25, far: false },
    ]);
    expect(found).toMatchObject({ outsideCount: 2, farCount: 1 });
    // A reading on a fence is inside.
    expect(box([10, 11, 12, 13, 14, 15, 16, 20, 22]).outsideCount).toBe(0);
    expect(box([10, 11, 12, 13, 14, 15, 16, 25, 40], 'ends')).toMatchObject({
      fences: null,
      whiskers: [10, 40],
      outside: [],
    });
  });

  it('counts every reading inside or outside its whiskers', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 40 }), (readings) => {
        const { whiskers, outsideCount } = box(readings);
        const inside = readings.filter((x) => x >= whiskers[0] && x <= whiskers[1]).length;
        expect(inside + outsideCount).toBe(readings.length);
      }),
    );
  });
});

group('stem-and-leaf', () => {
  const displayed = (sorted: Float64Array, resolution: number | null, split: StemSplit | null) =>
    stemAndLeaf(sorted, stemLayout(sorted, resolution, split));

  const shown = (readings: number[], resolution: number | null, split: StemSplit | null = null) =>
    stemText(displayed(Float64Array.from(readings).sort(), resolution, split));

  it('writes each reading as a leaf, with the depth from the nearer end and the line of the median', () => {
    expect(shown([12, 15, 21, 23, 23, 28, 31, 34, 47], 1, 1)).toEqual([
      '2   1 │ 25',
      '6 › 2 │ 1338',
      '3   3 │ 14',
      '1   4 │ 7',
    ]);
  });

  it('splits stems in two and in five, and gives −0 a line of its own', () => {
    expect(displayed(Float64Array.of(10, 14, 15, 19), 1, 2).lines.map(({ stem, leaves }) => stem + leaves)).toEqual([
      '104',
      '159',
    ]);
    expect(displayed(Float64Array.of(10, 13, 15, 19), 1, 5).lines.map(({ leaves }) => leaves)).toEqual([
      '0',
      '3',
      '5',
      '',
      '9',
    ]);
    expect(
      displayed(Float64Array.of(-12, -3, 4, 15), 1, 1).lines.map(({ stem, leaves }) => `${stem}|${leaves}`),
    ).toEqual(['\u22121|2', '\u22120|3', '0|4', '1|5']);
  });

  it('holds every reading once, in few enough lines, and depths that meet at the median', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.array(fc.integer({ min: -400, max: 900 }), { minLength: 1, maxLength: 80 }), anyColumn),
        (readings) => {
          const sorted = Float64Array.from(readings).sort();
          if (!Number.isFinite(sorted.at(-1)! - sorted[0]!)) return;
          const { lines, leafUnit } = displayed(sorted, null, null);
          expect(lines.reduce((n, { leaves }) => n + leaves.length, 0)).toBe(readings.length);
          expect(lines.length).toBeLessThan(50);
          expect(leafUnit).toBeGreaterThan(0);
          const marked = lines.filter(({ median }) => median);
          expect(marked.length).toBeGreaterThan(0);
          expect(marked.length).toBeLessThanOrEqual(2);
          for (const { depth } of lines) expect(depth).toBeLessThanOrEqual(readings.length);
          expect(lines[0]!.depth).toBe(Math.min(lines[0]!.leaves.length, readings.length));
        },
      ),
      { numRuns: 500 },
    );
  });

  it('reads decimals as they are written, and cuts digits behind the leaf', () => {
    const { leafUnit, lines, cut } = displayed(column('small-normal').sort(), 0.01, null);
    expect([leafUnit, cut]).toEqual([0.01, false]);
    expect(lines.reduce((all, { leaves }) => all + leaves, '').length).toBe(12);
    expect(displayed(Float64Array.of(1.19, 2.95, 9.99), 0.01, 1)).toMatchObject({ leafUnit: 0.1, cut: true });
  });

  it('puts groups on common lines', () => {
    const all = Float64Array.of(11, 12, 38, 51);
    const layout = stemLayout(all, 1, 1);
    const [low, high] = [stemAndLeaf(all.subarray(0, 2), layout), stemAndLeaf(all.subarray(3), layout)];
    expect(low.lines.map(({ stem }) => stem)).toEqual(high.lines.map(({ stem }) => stem));
    expect(high.lines.map(({ leaves, depth }) => [leaves, depth])).toEqual([
      ['', 0],
      ['', 0],
      ['', 0],
      ['', 0],
      ['1', 1],
    ]);
  });
});

group('dots, steps and shares', () => {
  it('stack every reading once', () => {
    fc.assert(
      fc.property(anyColumn, (readings) => {
        const values = Float64Array.from(readings);
        const { counts, at, perDot } = dotStacks(values, stackEdges(values, null));
        expect(sum(counts)).toBe(values.length);
        expect(at.length).toBe(counts.length);
        expect(perDot).toBeGreaterThanOrEqual(1);
      }),
    );
    const coarse = column('coarse-60');
    const { at } = dotStacks(coarse, stackEdges(coarse, columns['coarse-60']!.resolution));
    // A stack stands where its readings are.
    expect(at.every((x) => coarse.some((value) => Math.abs(value - x) < 1e-9))).toBe(true);
  });

  it('steps rise to n, once at each different value', () => {
    expect(stepsOf(Float64Array.of(1, 1, 2, 5))).toEqual({ values: [1, 2, 5], atOrBelow: [2, 3, 4] });
  });

  it('counts limits as inside, and every reading once', () => {
    const values = Float64Array.of(7.9, 8, 8.1, 8.2);
    expect(countsWithin(values, 7.9, 8.1)).toEqual({ below: 0, inside: 3, above: 1 });
    expect(countsWithin(values, null, 8)).toEqual({ below: 0, inside: 2, above: 2 });
    expect(countsWithin(values, 8.15, null)).toEqual({ below: 3, inside: 1, above: 0 });
  });
});

group('the heights of bars', () => {
  it('are counts, shares that sum to one, or densities whose areas do, and an empty part is no part', () => {
    const edges = [0, 1, 3];
    expect(binHeights(edges, [2, 6], 'count')).toEqual([2, 6]);
    expect(binHeights(edges, [2, 6], 'share')).toEqual([0.25, 0.75]);
    expect(binHeights(edges, [2, 6], 'density')).toEqual([0.25, 0.375]);
    expect(binHeights(edges, [0, 0], 'density')).toEqual([0, 0]);
  });
});
