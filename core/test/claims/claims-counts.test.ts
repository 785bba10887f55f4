import { describe, expect, it } from 'vitest';
import { cellFigures, claimTable } from '../../src/analyses/claims/claim-figures.js';
import type { ClaimDrawsResult } from '../../src/analyses/claims/claim-draws.js';
import type { ClaimResult } from '../../src/analyses/claims/claim-result.js';
import {
  claimScreenRows,
  claimScreenTable,
  type ClaimScreenResult,
} from '../../src/analyses/claims/claim-screen-words.js';
import { claimOffers, usualClaim } from '../../src/analyses/claims/claims-offered.js';
import { CLAIM_PARTS } from '../../src/analyses/claims/claim-parts.js';
import { readShares, readTyped, TYPED_FIELDS } from '../../src/analyses/claims/typed-texts.js';
import { analysisById, inThisThread } from '../../src/analyses/registry.js';
import { fingerprintOf } from '../../src/readings/fingerprint.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { toWire } from '../../src/road/wire.js';
import { sampleInParts, samplesBeside } from '../../src/table/split.js';
import type { Table, TableColumn } from '../../src/table/table.js';
import { column, reference, relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';

const known = reference<{
  counts: {
    observed: number[];
    shares: number[];
    contributions: number[];
    standardised: number[];
    statistic: number;
    df: number;
    pAsymptotic: number;
    pExact?: number;
  }[];
  table: {
    table: number[][];
    statistic: number;
    df: number;
    pAsymptotic: number;
    cramersV: number;
    fisher?: { 'two-sided': number };
  }[];
}>('claims');
const close = (found: number | null, expected: number, tolerance = 1e-9) =>
  expect(relativeError(found!, expected), `${found} for ${expected}`).toBeLessThan(tolerance);

async function result<R = ClaimResult>(id: string, request: object, sample: Sample = NO_READINGS): Promise<R> {
  const found = await drive(inThisThread, { id, request, sample });
  expect(isUnavailable(found), JSON.stringify(found).slice(0, 300)).toBe(false);
  toWire(found);
  return found as R;
}
async function reason(id: string, request: object, sample: Sample = NO_READINGS): Promise<string> {
  const found = await drive(inThisThread, { id, request, sample });
  expect(isUnavailable(found), JSON.stringify(found).slice(0, 200)).toBe(true);
  return (found as { reason: string }).reason;
}
const countsOf = (counts: readonly number[]) => Object.fromEntries(counts.map((count, i) => [`place ${i}`, count]));

/** A small study: faults by shift, with a spelling merged, a cell missing and one set aside. */
const labelColumn = (id: string, more: Partial<TableColumn> = {}): TableColumn => ({
  ...{ id, name: id, unit: '', kind: 'label', decimal: 'point', thousands: 'none', resolution: null, levels: null },
  ...{ frequencies: null, derivation: null, ...more },
});
const study: Table = {
  rowCount: 7,
  columns: [
    labelColumn('fault', { levels: { order: ['crack'], merged: [{ from: 'Chip', into: 'chip' }] } }),
    labelColumn('shift'),
    labelColumn('times', { kind: 'count' }),
    labelColumn('tally', { frequencies: 'times' }),
    labelColumn('length', { kind: 'measure', unit: 'mm' }),
  ],
  cells: {
    fault: ['chip', 'crack', 'Chip', '', 'chip', 'stain', 'crack'],
    shift: ['early', 'late', 'late', 'early', '', 'late', 'early'],
    times: ['3', '0', '2', 'x', '1', '', '4'],
    tally: ['a', 'b', 'b', 'a', 'c', 'a', 'a'],
    length: ['1', '2', '3', '4', '5', '6', '7'],
  },
  setAside: (id) => new Set(id === 'fault' ? [7] : []),
};
const of = (id: string) => study.columns.find((one) => one.id === id)!;

describe('a column of labels as readings', () => {
  it('holds the places of its levels, in the order of the analyst, without what is missing or set aside', () => {
    const sample = sampleInParts(study, of('fault'), null);
    expect(sample.levels).toEqual(['crack', 'chip', 'stain']);
    expect(Array.from(sample.values)).toEqual([1, 0, 1, 1, 2]);
    expect(Array.from(sample.rows)).toEqual([1, 2, 3, 5, 6]);
    expect([sample.missing, sample.setAside, sample.unreadable]).toEqual([1, 1, 0]);
  });

  it('is repeated according to its count column, rows without a count being unreadable', () => {
    const sample = sampleInParts(study, of('tally'), null);
    expect(Array.from(sample.values, (place) => sample.levels![place]).join('')).toBe('aaabbcaaaa');
    expect([sample.missing, sample.unreadable, sample.tallied]).toEqual([0, 2, true]);
  });

  it('is split by another one, and has a fingerprint that depends on its levels', () => {
    const split = sampleInParts(study, of('fault'), { split: of('shift') });
    expect(
      split.groups!.samples.map(({ name, values, setAside, missing }) => [name, values.length, setAside, missing]),
    ).toEqual([
      ['early', 1, 1, 1],
      ['late', 3, 0, 0],
    ]);
    expect(split.groups!.without).toBe(1);
    const whole = sampleInParts(study, of('fault'), null);
    expect(fingerprintOf(whole)).not.toBe(fingerprintOf({ ...whole, levels: ['chip', 'crack', 'stain'] }));
    expect(fingerprintOf({ values: whole.values })).not.toBe(fingerprintOf(whole));
  });
});

describe('a claim on counts', () => {
  it.each(known.counts)('has the figures of the reference for $observed', async (one) => {
    const shares = Object.fromEntries(one.shares.map((share, i) => [`place ${i}`, share]));
    const asked = { counts: countsOf(one.observed), spread: 'given', shares };
    const found = await result('counts-claim', { ...asked, method: 'chi-square' });
    close(found.statistic, one.statistic);
    expect(found.df).toBe(one.df);
    close(found.pValue, one.pAsymptotic);
    found.cells.forEach(({ contribution, standardised }, i) => {
      close(contribution, one.contributions[i]!);
      close(standardised, one.standardised[i]!);
    });
    if (one.pExact === undefined) return;
    const exact = await result('counts-claim', asked);
    expect(exact.pMethod).toBe('exact');
    close(exact.pValue, one.pExact);
    expect([exact.pExact, exact.pAsymptotic]).toEqual([exact.pValue, found.pValue]);
    const simulated = await result('counts-claim', { ...asked, method: 'simulated' });
    const [low, high] = simulated.pSimulated!.pInterval;
    expect(one.pExact > low * 0.8 && one.pExact < high * 1.2).toBe(true);
  });

  it('comes from labels, from counts split by labels, and from what is typed', async () => {
    const labels = await result('counts-claim', { column: 'fault' }, sampleInParts(study, of('fault'), null));
    expect(labels.cells.map(({ label, observed }) => [label, observed])).toEqual([
      ['crack', 1],
      ['chip', 3],
      ['stain', 1],
    ]);
    const split = sampleInParts(study, of('length'), { split: of('shift') });
    const counted = await result('counts-claim', { column: 'length', split: 'shift' }, split);
    expect(counted.cells.map(({ observed }) => observed)).toEqual([12, 11]);
    expect(await reason('counts-claim', { column: 'length' }, sampleInParts(study, of('length'), null))).toContain(
      'length holds numbers. Choose a label column, or split a count column by one.',
    );
    expect(await reason('counts-claim', {})).toContain('type the counts');
  });

  it('checks totals and shares against their parts, and names what is missing', async () => {
    const counts = { a: 10, b: 20, c: 5 };
    expect(await reason('counts-claim', { counts, total: 36 })).toContain(
      'The counts add up to 35, but the total is 36 (difference 1). Check both.',
    );
    const given = (shares: object) => ({ counts, spread: 'given', shares });
    expect(await reason('counts-claim', given({ a: 0.5, b: 0.4, c: 0.08 }))).toContain(
      'The claimed proportions add up to 98 % instead of 100\u00a0% (2 percentage points too little).',
    );
    expect(await reason('counts-claim', given({ a: 0.5, b: 0.5 }))).toContain('Enter the claimed proportion of c.');
    expect((await result('counts-claim', given({ a: 0.333, b: 0.333, c: 0.334 }))).available).toBe(true);
    expect(() => analysisById('counts-claim').request.parse({ counts: { a: 1.5, b: 2 } })).toThrow('whole number');
    expect(() => analysisById('counts-claim').request.parse({ counts, shares: { a: 25 } })).toThrow('0.25 means 25 %');
  });

  it('takes places of which nothing is claimed: one found there refutes it, none there says nothing', async () => {
    const shares = { a: 0.5, b: 0.5, c: 0 };
    const refuted = await result('counts-claim', { counts: { a: 9, b: 8, c: 1 }, spread: 'given', shares });
    expect([refuted.pValue, refuted.statistic]).toEqual([0, null]);
    expect(refuted.measured).toContain('c: 1 observed; the claim allows none');
    const not = await result('counts-claim', { counts: { a: 9, b: 8, c: 0 }, spread: 'given', shares });
    expect(not.df).toBe(1);
    const unseen = await result('counts-claim', {
      counts: { a: 9, b: 8 },
      spread: 'given',
      shares: { a: 0.4, b: 0.4, d: 0.2 },
    });
    expect(unseen.cells.at(-1)).toMatchObject({ label: 'd', observed: 0 });
  });

  it('of a thousand million uses the curve, and a simulation on request', async () => {
    const counts = { a: 500_010_000, b: 499_990_000 };
    const found = await result('counts-claim', { counts });
    expect([found.pMethod, found.statistic! > 0.39 && found.statistic! < 0.41]).toEqual(['asymptotic', true]);
    const simulated = await result('counts-claim', { counts, method: 'simulated', replicates: 2_000 });
    expect(Math.abs(simulated.pValue! - found.pValue!)).toBeLessThan(0.06);
    expect(await reason('counts-claim', { counts, method: 'exact' })).toContain('more than 1 000 000 tables');
  });

  it('is simulated where few are expected and there are too many tables to count out', async () => {
    const found = await result('counts-claim', { counts: countsOf([3, 2, 6, 1, 4, 2, 9, 3, 1, 5]), replicates: 999 });
    expect(found.pMethod).toBe('simulated');
    expect(found.assumptions[0]!.holds).toBe(false);
    expect(cellFigures(found)).toHaveLength(10);
    expect(claimTable(found)).toHaveLength(11);
  });

  it('keeps the claimed shares in its sentence', () => {
    const analysis = analysisById('counts-claim');
    const request = analysis.request.parse({ column: 'fault', spread: 'given', shares: { chip: 0.75, crack: 0.25 } });
    expect(methodOf(analysis, request)).toContain('fault (claimed: chip 75\u00a0%, crack 25\u00a0%)');
  });
});

describe('a claim on a table', () => {
  it.each(known.table)('has the figures of the reference for $table', async (one) => {
    const found = await result('table-claim', { table: one.table, method: 'chi-square' });
    close(found.statistic, one.statistic);
    close(found.pValue, one.pAsymptotic);
    close(found.estimate, one.cramersV);
    if (!one.fisher) return;
    const exact = await result('table-claim', { table: one.table });
    close(exact.pValue, one.fisher['two-sided']);
    const simulated = await result('table-claim', { table: one.table, method: 'simulated' });
    expect(simulated.pMethod).toBe('simulated');
  });

  it('is made of two columns of labels, without what is empty', async () => {
    const sample = sampleInParts(study, of('fault'), { split: of('shift') });
    const found = await result('table-claim', { column: 'fault', split: 'shift' }, sample);
    expect(found.cells.map(({ label, observed }) => [label, observed])).toEqual([
      ['early · crack', 0],
      ['early · chip', 1],
      ['early · stain', 0],
      ['late · crack', 1],
      ['late · chip', 1],
      ['late · stain', 1],
    ]);
    expect(found.notes.map(({ code }) => code)).toContain('no-label');
    expect(
      await reason(
        'table-claim',
        { column: 'length', split: 'shift' },
        sampleInParts(study, of('length'), { split: of('shift') }),
      ),
    ).toContain('length holds numbers; a two-way table needs two label columns.');
  });

  it('checks its totals, and refuses what is no table', async () => {
    const table = [
      [12, 5],
      [3, 14],
    ];
    expect(await reason('table-claim', { table, rowTotals: [17, 18] })).toContain(
      'The counts of row 2 add up to 17, but its total is 18 (difference 1). Check both.',
    );
    expect(await reason('table-claim', { table, columnTotals: [15] })).toContain(
      'The table has 2 columns, but 1 column total is given.',
    );
    expect(
      await reason('table-claim', {
        table: [
          [1, 2],
          [0, 0],
        ],
      }),
    ).toContain('The table needs at least 2 rows and 2 columns with counts above 0.');
    expect(
      await reason('table-claim', {
        table: [
          [1, 2, 3],
          [4, 5, 6],
        ],
        method: 'exact',
      }),
    ).toContain('2 × 2 tables only');
    expect(() => analysisById('table-claim').request.parse({ table: [[1, 2], [3]] })).toThrow('same number of counts');
  });
});

describe('samples drawn as if a claim were true', () => {
  it('are at least as extreme in a proportion near p, for every claim that can be simulated', async () => {
    const sample = { ...sampleOf(column('normal-40')), resolution: 0.001 };
    const halves = samplesBeside([
      { ...sampleOf(column('normal-40').subarray(0, 20)), name: 'a' },
      { ...sampleOf(column('normal-40').subarray(20)), name: 'b' },
    ]);
    const claims: [string, object, Sample][] = [
      ['mean-claim', { column: 'thickness', claimed: 101.9 }, sample],
      ['mean-claim', { column: 'thickness', claimed: 101.9, alternative: 'greater' }, sample],
      ['spread-claim', { column: 'thickness', claimed: 2.7 }, sample],
      ['median-claim', { column: 'thickness', claimed: 101.9 }, sample],
      ['median-claim', { column: 'thickness', claimed: 101.9, method: 'sign' }, sample],
      ['share-claim', { column: 'thickness', of: 'above', upper: 103, claimed: 0.3 }, sample],
      ['rate-claim', { figures: { count: 7, exposure: 48 }, claimed: 0.1 }, NO_READINGS],
      ['counts-claim', { counts: { a: 31, b: 25, c: 40 } }, NO_READINGS],
      ['two-means', { column: 'a', beside: ['b'] }, halves],
      ['two-medians', { column: 'a', beside: ['b'] }, halves],
      ['two-spreads', { column: 'a', beside: ['b'], method: 'f' }, halves],
      ['several-means', { column: 'a', beside: ['b'] }, halves],
    ];
    for (const [id, request, of] of claims) {
      const { draws, law, pValue } = await result(id, request, of);
      const drawn = await result<ClaimDrawsResult>('claim-draws', { model: draws, beyond: law!.beyond, draws: 2_000 });
      expect(drawn.statistics).toHaveLength(2_000);
      expect(Math.abs(drawn.beyond / 2_000 - pValue!), `${id} ${drawn.beyond / 2_000} for ${pValue}`).toBeLessThan(
        0.06,
      );
    }
  });
});

describe('many claims at once', () => {
  const numbers = (name: string, shift: number): Sample => ({
    ...sampleOf(column('normal-40').map((x) => x + shift)),
    name,
  });
  const labels: Sample = {
    ...sampleOf(Float64Array.from({ length: 40 }, (_, i) => (i % 5 === 0 ? 1 : 0))),
    name: 'fault',
    levels: ['chip', 'crack'],
    resolution: null,
  };
  const mean = 101.9;

  it('hold each column against its own, labels against being even, and share the level', async () => {
    const sample = samplesBeside([numbers('a', 0), numbers('b', 3), labels, numbers('d', 0)]);
    const claims = { a: { mean: 102.2 }, b: { mean, sd: 2.6 } };
    const found = await result<ClaimScreenResult>(
      'claim-screen',
      { column: 'a', beside: ['b', 'fault', 'd'], claims },
      sample,
    );
    const [a, b, fault, d] = found.parts;
    expect(d!.reason).toContain(
      'Its card states no claim. Enter a mean, a target or a standard deviation in Readings.',
    );
    expect(fault!.places).toBe(2);
    const ps = [a, b, fault].map((part) => part!.pValue!);
    const least = Math.min(...ps);
    expect(found.parts.find(({ pValue }) => pValue === least)!.pHolm).toBeCloseTo(Math.min(1, 3 * least), 12);
    const words = analysisById('claim-screen')
      .finding(found)
      .map(({ text }) => text)
      .join('');
    expect(words).toContain(
      '2 of 3 columns differ from their claims: b, fault (significance level 0.05, Holm-adjusted',
    );
    expect(claimScreenRows(found)[1]).toMatchObject({ claimed: 'mean 101.9, SD 2.6 mm' });
    expect(claimScreenTable(found)).toHaveLength(5);
  });

  it('hold every group of a column against its claim', async () => {
    const parts = [numbers('north', 0), numbers('south', 0)];
    const sample = { ...samplesBeside(parts), name: 'thickness', groups: { by: 'kiln', samples: parts, without: 0 } };
    const found = await result<ClaimScreenResult>(
      'claim-screen',
      { column: 'thickness', split: 'kiln', claims: { thickness: { mean: 102.3 } } },
      sample,
    );
    expect(found.parts.map(({ claimedMean }) => claimedMean)).toEqual([102.3, 102.3]);
    expect(analysisById('claim-screen').finding(found)[0]!.text).toBe('No evidence');
  });
});

describe('what is offered', () => {
  const why = (looked: Parameters<typeof claimOffers>[0]) =>
    Object.fromEntries(claimOffers(looked).map(({ id, whyNot }) => [id, whyNot]));

  it('suits the kind of column, and says why the rest does not', () => {
    const measure = why({ kind: 'measure', name: 'thickness', groups: 1, split: false });
    expect(measure['mean-claim']).toBeNull();
    expect(measure['counts-claim']).toContain('needs labels or counts; thickness holds measurements');
    expect(measure['two-means']).toContain('needs two groups');
    const labels = why({ kind: 'label', name: 'fault', groups: 1, split: false });
    expect(labels['mean-claim']).toContain('fault holds labels');
    expect([labels['counts-claim'], labels['share-claim']]).toEqual([null, null]);
    expect(labels['table-claim']).toContain('split fault by another label');
    expect(why({ kind: 'count', name: 'pinholes', groups: 3, split: true })['counts-claim']).toBeNull();
  });

  it('is every claim there is, and each that figures can be typed for has its fields', () => {
    const typed = claimOffers({ kind: null, name: '', groups: 1, split: false });
    expect(typed.map(({ id }) => id).sort()).toEqual(Object.keys(CLAIM_PARTS).sort());
    expect(
      typed
        .filter(({ whyNot }) => whyNot === null)
        .map(({ id }) => id)
        .sort(),
    ).toEqual(Object.keys(TYPED_FIELDS).sort());
    for (const [id, { claim, how }] of Object.entries(CLAIM_PARTS)) {
      expect(analysisById(id).method).toEqual([...claim, ' ', ...how]);
    }
  });

  it('begins with what is most likely meant', () => {
    const usual = (kind: 'measure' | 'count' | 'label', groups: number, split: boolean) =>
      usualClaim({ kind, name: 'x', groups, split });
    expect([usual('measure', 1, false), usual('measure', 2, true), usual('measure', 3, true)]).toEqual([
      'mean-claim',
      'two-means',
      'several-means',
    ]);
    expect([usual('count', 1, false), usual('label', 1, false), usual('label', 3, true)]).toEqual([
      'rate-claim',
      'counts-claim',
      'table-claim',
    ]);
  });
});

describe('typed figures', () => {
  it('are read as they are written, or what is odd is named with its field', () => {
    expect(readTyped('mean-claim', { n: '12', mean: '8,02', sd: '0.11' })).toEqual({
      settings: { figures: { n: 12, mean: 8.02, sd: 0.11 } },
    });
    expect(readTyped('mean-claim', { n: '12', mean: 'x', sd: '1' })).toMatchObject({
      field: 'mean',
      problem: '“x” is not a number.',
    });
    expect(readTyped('mean-claim', { n: '12' })).toMatchObject({ field: 'mean', problem: 'Enter mean.' });
    expect(readTyped('two-shares', { count: '3', n: '20', count2: '9', n2: '25' })).toEqual({
      settings: {
        figures: [
          { count: 3, n: 20 },
          { count: 9, n: 25 },
        ],
      },
    });
  });

  it('take names with their numbers, and rows of counts', () => {
    expect(readTyped('counts-claim', { counts: 'off shade 24, chipped: 12; crazed=9', total: '45' })).toEqual({
      settings: { counts: { 'off shade': 24, chipped: 12, crazed: 9 }, total: 45 },
    });
    expect(readTyped('counts-claim', { counts: 'chipped 24, pinholed' })).toMatchObject({ field: 'counts' });
    expect(readTyped('counts-claim', { counts: 'a 1, a 2' })).toMatchObject({ problem: '“a” occurs twice.' });
    expect(readTyped('table-claim', { table: '12 5; 3 14', rowTotals: '17 17' })).toEqual({
      settings: {
        table: [
          [12, 5],
          [3, 14],
        ],
        rowTotals: [17, 17],
      },
    });
    expect(readShares('chipped 50 %, pinholed 33,3')).toEqual({
      settings: { spread: 'given', shares: { chipped: 0.5, pinholed: 0.333 } },
    });
    expect(readShares('chipped')).toMatchObject({ field: 'shares' });
  });
});
