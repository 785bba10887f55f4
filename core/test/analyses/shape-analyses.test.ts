import { describe as group, expect, it } from 'vitest';
import { isUnavailable } from '../../src/road/analysis.js';
import { boxAnalysis, type BoxResult } from '../../src/analyses/shape/box.js';
import { describeParagraph, resultParagraph } from '../../src/analyses/shape/describe-words.js';
import { describeAnalysis } from '../../src/analyses/shape/describe.js';
import type { DescribeResult } from '../../src/analyses/shape/describe-result.js';
import type { DotsResult } from '../../src/analyses/shape/dots.js';
import type { EmpiricalResult } from '../../src/analyses/shape/empirical.js';
import { histogramAnalysis, type HistogramResult } from '../../src/analyses/shape/histogram.js';
import { inOrderAnalysis, type InOrderResult } from '../../src/analyses/shape/in-order.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { ANALYSES } from '../../src/analyses/registry.js';
import type { AnyAnalysis } from '../../src/road/analysis.js';
import { advance } from '../../src/analyses/registry.js';
import { sharesAnalysis, stretchWords, type SharesResult } from '../../src/analyses/shape/shares.js';
import type { StemAndLeafResult } from '../../src/analyses/shape/stem-and-leaf.js';
import { toWire } from '../../src/road/wire.js';
import { normalQuantile, normalSurvival } from '../../src/numeric/standard-normal.js';
import { fingerprintOf } from '../../src/readings/fingerprint.js';
import type { Sample } from '../../src/readings/sample.js';
import { arrangedRows } from '../../src/table/arrange.js';
import { sampleInParts, samplesBeside, splitSample } from '../../src/table/split.js';
import type { Table, TableColumn } from '../../src/table/table.js';
import { column, columns, relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';

const PICTURES = ['histogram', 'box', 'stem-and-leaf', 'empirical', 'dots', 'in-order', 'shares'];
const sampled = (name: string): Sample => ({ ...sampleOf(column(name)), name, resolution: columns[name]!.resolution });

function done<Result>(id: string, sample: Sample, request: object = {}): Result {
  const stage = advance(id, { column: sample.name, ...request }, sample, []);
  if (!stage.done) throw new Error('It should come at once.');
  return stage.result as Result;
}
const words = (pieces: { text: string }[]) => pieces.map(({ text }) => text).join('');
const sum = (counts: readonly number[]) => counts.reduce((a, b) => a + b, 0);
const figures = (values: number[], request: object = {}, more: object = {}) =>
  done<DescribeResult>('describe', { ...sampleOf(Float64Array.from(values)), ...more }, request);

const textColumn = (id: string, name: string, kind: 'measure' | 'label'): TableColumn => ({
  ...{ id, name, kind, unit: kind === 'measure' ? 'mm' : '', resolution: null, levels: null, frequencies: null },
  ...{ derivation: null, decimal: 'point', thousands: 'none' },
});
/** Ten tiles of two kilns: one without a kiln, one set aside, one missing, one censored. */
const TABLE: Table = {
  rowCount: 10,
  columns: [
    textColumn('thick-01', 'thickness', 'measure'),
    textColumn('kiln-001', 'kiln', 'label'),
    textColumn('width-01', 'width', 'measure'),
  ],
  cells: {
    'thick-01': ['8.0', '8.1', '7.9', '', '8.3', '8.0', '<7.5', '8.2', '9.9', '8.1'],
    'kiln-001': ['north', 'south', 'north', 'south', 'north', 'south', 'south', '', 'north', 'south'],
    'width-01': ['20', '21', '22', '23', '24', '25', '26', '27', '28', '29'],
  },
  setAside: (id) => new Set(id === 'thick-01' ? [9] : []),
};
const [THICKNESS, KILN, WIDTH] = TABLE.columns as [TableColumn, TableColumn, TableColumn];
const byKiln = () => splitSample(TABLE, THICKNESS, KILN);

group('a sample in parts', () => {
  it('hfrom the readings of each level with what its other rows hold instead', () => {
    const { groups, values } = byKiln();
    expect(groups!.by).toBe('kiln');
    expect(groups!.without).toBe(1);
    expect(values).toHaveLength(7);
    const [north, south] = groups!.samples as [Sample, Sample];
    expect([north.name, Array.from(north.values), Array.from(north.rows)]).toEqual(['north', [8, 7.9, 8.3], [1, 3, 5]]);
    expect(north).toMatchObject({ setAside: 1, missing: 0, resolution: 0.1, unit: 'mm' });
    expect([Array.from(south.values), south.missing, south.beyondLimit]).toEqual([[8.1, 8, 8.1], 1, 1]);
  });

  it('follows the analyst’s order of levels and his merging', () => {
    const arranged = { ...KILN, levels: { order: ['south'], merged: [{ from: 'north', into: 'N' }] } };
    expect(splitSample(TABLE, THICKNESS, arranged).groups!.samples.map(({ name }) => name)).toEqual(['south', 'N']);
  });

  it('of several columns joins their readings, and keeps a unit only if it is that of all', () => {
    const one = { ...sampleOf(Float64Array.of(1, 2)), resolution: 1 };
    const both = samplesBeside([one, { ...sampleOf(Float64Array.of(5)), name: 'other', unit: 'N', resolution: 1 }]);
    expect(both).toMatchObject({ unit: '', resolution: 1, name: 'thickness' });
    expect(Array.from(both.values)).toEqual([1, 2, 5]);
    const notes = done<HistogramResult>('histogram', both, { beside: ['other'] }).notes.map(({ code }) => code);
    expect(notes).toContain('units-differ');
  });

  it('has another fingerprint than the same readings as a whole, or in other parts', () => {
    const whole = byKiln();
    const other = splitSample(TABLE, THICKNESS, { ...KILN, levels: { order: ['south'], merged: [] } });
    expect(new Set([fingerprintOf(whole), fingerprintOf(other), fingerprintOf({ values: whole.values })]).size).toBe(3);
  });
});

group('describe in words', () => {
  it('says which way the readings lean, with the test that supports it', () => {
    const skewed = done<DescribeResult>('describe', sampled('right-skew-50'));
    expect(words(describeAnalysis.finding(skewed))).toContain(
      'Mean 2.03\u00a0mm, standard deviation 1.08\u00a0mm, 50 readings. Skewed to the right: the upper',
    );
    const paragraph = describeParagraph(skewed, 0.05);
    expect(paragraph).toContain(
      'The middle 50\u00a0% lie between 1.3055\u00a0mm and 2.3357\u00a0mm. The mean is 0.28 SD above the median',
    );
    const normal = done<DescribeResult>('describe', sampled('normal-40'));
    expect(words(describeAnalysis.finding(normal))).toContain('No evidence of skewness');
    expect(describeParagraph(normal, 0.05)).toContain('No evidence of skewness (skewness 0.393, p = 0.28).');
    expect(describeParagraph(normal, 0.05)).toContain('No evidence of a gap or a drift in row order. A drift of ');
  });

  it('names far readings with their rows, gaps, coarse steps and a drift', () => {
    const far = describeParagraph(done<DescribeResult>('describe', sampled('one-far-25')), 0.05);
    const row = columns['one-far-25']!.values.indexOf(14.4) + 1;
    expect(far).toMatch(
      new RegExp(
        `Suspected outlier: 14\\.40\u00a0mm \\(row ${row}\\), \\S+ IQR beyond the quartiles \\(p [=<] \\S+\\)\\.`,
      ),
    );
    expect(describeParagraph(done<DescribeResult>('describe', sampled('two-groups-64')), 0.05)).toMatch(
      /There is a gap between 5\.\d\d\u00a0mm and 6\.\d\d\u00a0mm, wider than expected/,
    );
    expect(describeParagraph(done<DescribeResult>('describe', sampled('coarse-60')), 0.05)).toContain(
      '9 different values in 60 readings',
    );
    const rising = figures(Array.from({ length: 30 }, (_, i) => normalQuantile((((i * 7) % 30) + 0.5) / 30) + i / 4));
    expect(describeParagraph(rising, 0.05)).toContain('The readings rise in row order (rank correlation 0.');
  });

  it('names the row of a far reading in a group, and points out a share typed for a percentile', () => {
    const one = done<DescribeResult>('describe', sampled('one-far-25'), { percentiles: [0.7] });
    const row = columns['one-far-25']!.values.indexOf(14.4) + 1;
    const groups = [{ ...one, name: 'north' }];
    expect(resultParagraph({ ...one, groups })).toContain(`a suspected outlier: 14.40\u00a0mm (row ${row})`);
    expect(one.notes.map(({ text }) => text).join(' ')).toContain('For 70\u00a0%, enter 70.');
  });

  it('compares groups by their means and spreads', () => {
    const result = done<DescribeResult>('describe', byKiln(), { split: 'kiln' });
    expect(words(describeAnalysis.finding(result))).toContain(
      '2 groups by kiln: means from 8.07\u00a0mm (north) to 8.067\u00a0mm (south), standard deviations',
    );
    expect(result.groups!.map(({ name, n, setAside, missing }) => [name, n, setAside, missing])).toEqual([
      ['north', 3, 1, 0],
      ['south', 3, 0, 1],
    ]);
    expect(result.notes.map(({ code }) => code)).toEqual(['beyond-limit', 'no-label']);
    expect(methodOf(describeAnalysis, describeAnalysis.request.parse({ column: 'thickness', split: 'kiln' }))).toBe(
      'Describe thickness by kiln, quartiles by linear interpolation, (i − 1)/(n − 1) (type 7), additional percentiles: none, confidence intervals at 95 %, figures with the usual decimal places.',
    );
  });

  it('points out an unusual confidence, and one that a slip of the mark may have made', () => {
    const texts = (confidence: number) => figures([1, 2, 4, 7, 8, 9], { confidence }).notes.map(({ text }) => text);
    expect(texts(0.095)[0]).toBe(
      'The confidence level 9.5 % is unusual; 95\u00a0% and 99\u00a0% are common. Did you mean 95\u00a0%?',
    );
    expect(texts(0.5)[0]).not.toContain('meant');
    expect(texts(0.95)).toEqual([]);
    expect(figures([1, 2, 4], { confidence: 0.99 }).notes[0]!.text).toContain(
      'The interval of the median does not reach 99 %: with 3 readings, minimum to maximum',
    );
  });

  it.each([
    [{ percentiles: [101] }, 'A percentile must lie between 0 and 100; 25 is the lower quartile.'],
    [{ percentiles: Array.from({ length: 13 }, () => 5) }, 'At most 12 percentiles'],
    [{ confidence: 95 }, '0.95 means 95 %'],
    [{ quantileType: 10 }, 'The quantile type must be 1 to 9 or "hinges".'],
  ])('refuses %o', (request, message) => {
    const found = describeAnalysis.request.safeParse({ column: 'x', ...request });
    expect(found.error!.issues[0]!.message).toContain(message);
  });

  it('takes a quantile type as text, as the address holds it', () => {
    expect(describeAnalysis.request.parse({ column: 'x', quantileType: '6' }).quantileType).toBe(6);
    expect(figures([1, 2, 3, 4], { quantileType: 'hinges', percentiles: [25] })).toMatchObject({
      q1: 1.5,
      quantileType: 'hinges',
    });
  });
});

group('the pictures of a column', () => {
  it('count a number of readings given by there are, whole and by group', () => {
    const whole = done<HistogramResult>('histogram', sampled('weibull-80'), { curve: 'weibull', scale: 'density' });
    expect(sum(whole.parts[0]!.counts)).toBe(80);
    expect(whole.parts[0]!.curve).toMatchObject({ family: 'weibull', parameters: { shape: expect.any(Number) } });
    for (const { counts } of whole.others) expect(sum(counts)).toBe(80);
    const split = done<HistogramResult>('histogram', byKiln(), { split: 'kiln' });
    expect(split.parts.map(({ counts, n }) => [sum(counts), n])).toEqual([
      [3, 3],
      [3, 3],
    ]);
    expect(split.others.map(({ counts }) => sum(counts))).toEqual([6, 6, 6]);
    expect(words(histogramAnalysis.finding(whole))).toContain(
      '80 readings in 7 bins of width 185.7\u00a0mm from 526.15. The bin with the most readings is',
    );
  });

  it('say why a curve cannot be fitted, and draw the rest', () => {
    const { parts, notes } = done<HistogramResult>('histogram', sampleOf(Float64Array.of(-1, 2, 3)), {
      curve: 'weibull',
    });
    expect(parts[0]!.curve).toHaveProperty('refused');
    expect(notes.map(({ code }) => code)).toContain('no-curve');
  });

  it('list readings outside the fences of a box', () => {
    const result = done<BoxResult>('box', sampled('one-far-25'));
    const row = columns['one-far-25']!.values.indexOf(14.4) + 1;
    expect(result.parts[0]!.outside[0]).toEqual({ row, value: 14.4, far: true });
    // 1.5 quartile ranges of 0.350 beyond 11.690 and 12.040.
    expect(words(boxAnalysis.finding(result))).toContain(
      `Fences at 11.165\u00a0mm and 12.565\u00a0mm, outside: 14.40\u00a0mm (row ${row}).`,
    );
    expect(words(boxAnalysis.finding(done('box', sampled('one-far-25'), { whiskers: 'ends' })))).toContain(
      'Whiskers from 11.22\u00a0mm to 14.40\u00a0mm.',
    );
    expect(words(boxAnalysis.finding(done('box', byKiln(), { split: 'kiln' })))).toContain('edians');
  });

  it('show the first 12 of 200 groups, and say so', () => {
    const table: Table = {
      ...TABLE,
      rowCount: 1000,
      cells: {
        'thick-01': Array.from({ length: 1000 }, (_, i) => (8 + (i % 37) / 100).toFixed(2)),
        'kiln-001': Array.from({ length: 1000 }, (_, i) => `car ${i % 200}`),
      },
      setAside: () => new Set(),
    };
    const sample = splitSample(table, THICKNESS, KILN);
    for (const id of [...PICTURES, 'describe']) {
      const result = done<HistogramResult & DescribeResult>(id, sample, { split: 'kiln' });
      expect(
        (result.parts ?? result.groups)!.map(({ name }) => name),
        id,
      ).toEqual(Array.from({ length: 12 }, (_, i) => `car ${i}`));
      expect(result.notes.map(({ text }) => text).join(), id).toContain(
        'kiln has 200 groups with readings. Only the first 12 are shown.',
      );
    }
  });

  it('report drift, in words relative to the level', () => {
    const rising = sampleOf(Float64Array.from({ length: 20 }, (_, i) => i + (i % 3)));
    expect(words(inOrderAnalysis.finding(done<InOrderResult>('in-order', rising)))).toContain(
      'The readings rise in row order (rank correlation 0.991, p < 0.0001; single test at',
    );
    expect(words(inOrderAnalysis.finding(done<InOrderResult>('in-order', sampled('normal-40'))))).toContain(
      'No evidence of a drift in row order (rank correlation 0.195, p = 0.23). A drift of 4.6 mm',
    );
    expect(words(inOrderAnalysis.finding(done<InOrderResult>('in-order', sampleOf(Float64Array.of(1, 2)))))).toContain(
      'too few',
    );
  });

  it('have a dot for each reading, or state how many one represents', () => {
    expect(done<DotsResult>('dots', sampled('normal-40')).perDot).toBe(1);
    const many = done<DotsResult>('dots', sampled('normal-1000'));
    expect(sum(many.parts[0]!.counts)).toBe(1000);
    const coarse = done<DotsResult>('dots', { ...sampled('counts-90'), resolution: 1 });
    expect(coarse.width).toBe(1);
    const heaps = done<DotsResult>('dots', sampleOf(new Float64Array(300).fill(5)));
    expect(heaps.notes[0]!.text).toBe(`One dot stands for up to ${heaps.perDot} readings.`);
  });

  it('step to 1 at the maximum', () => {
    const { parts } = done<EmpiricalResult>('empirical', sampled('coarse-60'));
    expect(parts[0]!.atOrBelow.at(-1)).toBe(60);
    expect(parts[0]!.curve).toMatchObject({ family: 'normal' });
  });

  it('refuse too many leaves', () => {
    const many = sampleOf(Float64Array.from({ length: 3001 }, (_, i) => i));
    expect(done('stem-and-leaf', many)).toMatchObject({
      available: false,
      reason: expect.stringContaining('takes up to'),
    });
    expect(done<StemAndLeafResult>('stem-and-leaf', sampled('small-normal')).parts[0]!.leafUnit).toBe(0.01);
  });

  const EDGES: [string, number[]][] = [
    ['one reading', [8.1]],
    ['two readings', [8.1, 8.4]],
    ['equal readings', [8.1, 8.1, 8.1, 8.1]],
    ['zeros', [0, 0, 0]],
    ['readings of 1e300 and 1e-300', [1e300, 1e-300, -1e300, 5]],
    ['readings of 1e-300', [1e-300, 2e-300, 4e-300]],
    ['readings that fill the doubles', [-1.7e308, 1.7e308, 1]],
    ['large and nearly equal readings', [1e15, 1e15 + 1, 1e15 + 2, 1e15 + 2]],
  ];
  it.each(EDGES)('of %s can be computed or say why not, and can be sent', (_, values) => {
    for (const resolution of [null, 0.1]) {
      for (const id of [...PICTURES, 'describe']) {
        const sample = { ...sampleOf(Float64Array.from(values)), resolution };
        const result = done<object>(id, sample, id === 'histogram' ? { curve: 'normal' } : {});
        expect(() => toWire(result), id).not.toThrow();
        if (isUnavailable(result)) {
          expect(result.reason).toMatch(/axis|Choose/);
          continue;
        }
        const analysis = ANALYSES.find((one) => one.id === id)!;
        const said = words(analysis.finding(result as never)) !== '';
        // Readings without a spread have no shares within so many sd: there is nothing to say of them.
        const any = (result as { parts?: { stretches?: unknown[] }[] }).parts?.some(
          ({ stretches }) => stretches?.length,
        );
        expect(said, id).toBe(id === 'shares' ? any : true);
      }
    }
  });

  it('of nothing say so', () => {
    const nothing = { ...sampleOf(new Float64Array()), missing: 3 };
    for (const id of [...PICTURES, 'describe']) {
      expect(done(id, nothing)).toMatchObject({
        available: false,
        reason: 'thickness has no readings (3 missing).',
      });
    }
  });
});

group('shares', () => {
  const QUANTILES = Float64Array.from({ length: 1000 }, (_, i) => normalQuantile((i + 0.5) / 1000));

  it('of a normal are 68.27, 95.45 and 99.73 % within 1, 2 and 3 sd', () => {
    const { parts } = done<SharesResult>('shares', sampleOf(QUANTILES));
    const expected = [0.6826894921370859, 0.9544997361036416, 0.9973002039367398];
    parts[0]!.stretches.forEach((stretch, i) => {
      expect(stretch.expected).toBeCloseTo(expected[i]!, 12);
      expect(stretch.share).toBeCloseTo(expected[i]!, 2);
      expect(stretch.below + stretch.inside + stretch.above).toBe(1000);
      expect(stretch.interval[0]).toBeLessThan(stretch.share);
      expect(stretch.interval[1]).toBeGreaterThan(stretch.share);
    });
  });

  it('within limits count the limits as inside, beside what a fitted family expects', () => {
    const sample = { ...sampleOf(Float64Array.of(7.9, 8, 8.1, 8.15, 8.2)), resolution: 0.05 };
    const result = done<SharesResult>('shares', sample, { of: 'limits', lower: 7.9, upper: 8.15 });
    expect(result.parts[0]!.stretches).toHaveLength(1);
    expect(result.parts[0]!.stretches[0]).toMatchObject({ below: 0, inside: 4, above: 1, share: 0.8, times: null });
    expect(words(sharesAnalysis.finding(result))).toContain(
      '4 of 5 (80\u00a0%) lie from 7.90 to 8.15\u00a0mm; the fitted normal distribution predicts 66.8\u00a0%.',
    );
    expect(stretchWords({ times: null, lower: null, upper: 8.125 } as never, 0.1, 'mm')).toBe(
      'at or below 8.125\u00a0mm',
    );
  });

  it('beyond one limit alone are beside what the family expects beyond it', () => {
    const sample = { ...sampleOf(column('normal-40')), resolution: 0.001 };
    const { mean, sd } = done<DescribeResult>('describe', sample);
    const only = (limit: object) =>
      done<SharesResult>('shares', sample, { of: 'limits', ...limit }).parts[0]!.stretches[0]!.expected!;
    const expected = normalSurvival(0.5);
    expect(relativeError(only({ lower: mean + sd! / 2 }), expected)).toBeLessThan(1e-12);
    expect(relativeError(only({ upper: mean + sd! / 2 }), 1 - expected)).toBeLessThan(1e-12);
  });

  it('of one value count it, and expect it as often as it is recorded', () => {
    const sample = { ...sampleOf(Float64Array.of(0, 0, 1, 0, 2, 3)), resolution: 1, unit: '' };
    const result = done<SharesResult>('shares', sample, { of: 'limits', lower: 0, upper: 0 });
    const [stretch] = result.parts[0]!.stretches;
    expect(stretch).toMatchObject({ inside: 3, below: 0, above: 3, share: 0.5 });
    const { mean, sd } = result.parts[0]!;
    const recorded = normalSurvival((-0.5 - mean) / sd!) - normalSurvival((0.5 - mean) / sd!);
    expect(relativeError(stretch!.expected!, recorded)).toBeLessThan(1e-12);
    expect(words(sharesAnalysis.finding(result))).toContain(
      '3 of 6 (50\u00a0%) lie at 0; the fitted normal distribution predicts 22.8\u00a0%.',
    );
  });

  it('of readings that lean come with the caution that a normal is no measure', () => {
    const { notes } = done<SharesResult>('shares', sampled('right-skew-50'));
    expect(notes.map(({ code }) => code)).toContain('lopsided');
    expect(done<SharesResult>('shares', sampled('normal-40')).notes).toEqual([]);
    expect(done<SharesResult>('shares', sampleOf(Float64Array.of(5, 5, 5))).notes[0]!.code).toBe('no-spread');
  });

  it.each([
    [{ of: 'limits' }, 'Give a lower limit, an upper limit, or both.'],
    [{ of: 'limits', lower: 9, upper: 8 }, 'The upper limit 8 is below the lower limit 9.'],
  ])('refuse %o', (request, message) => {
    expect(sharesAnalysis.request.safeParse({ column: 'x', ...request }).error!.issues[0]!.message).toBe(message);
  });
});

group('the width of columns', () => {
  it('beside one another keep their own n', () => {
    const both = samplesBeside([byKiln(), { ...sampleOf(Float64Array.of(20, 21)), name: WIDTH.name }]);
    expect(done<BoxResult>('box', both, { beside: ['width'] }).parts.map(({ name, n }) => [name, n])).toEqual([
      ['thickness', 7],
      ['width', 2],
    ]);
  });
});

group('a sample in parts, by other roads', () => {
  it('repeats readings by their frequency, each with its level', () => {
    const times: TableColumn = { ...textColumn('times-01', 'times', 'measure'), kind: 'count' };
    const table: Table = {
      rowCount: 3,
      columns: [{ ...THICKNESS, frequencies: 'times-01' }, KILN, times],
      cells: {
        'thick-01': ['8.0', '8.1', '8.2'],
        'kiln-001': ['north', 'south', 'north'],
        'times-01': ['2', '3', '0'],
      },
      setAside: () => new Set(),
    };
    const { groups, values } = splitSample(table, table.columns[0]!, KILN);
    expect(values).toHaveLength(5);
    expect(groups!.samples.map((part) => [part.name, Array.from(part.values), Array.from(part.rows)])).toEqual([
      ['north', [8, 8], [1, 1]],
      ['south', [8.1, 8.1, 8.1], [2, 2, 2]],
    ]);
    // A value that occurred no time is neither missing nor unreadable.
    expect(groups!.samples[0]).toMatchObject({ missing: 0, unreadable: 0, setAside: 0 });
  });

  it('splits columns that follow others, and takes the road that is asked for', () => {
    const twice: TableColumn = {
      ...textColumn('twice-01', 'twice', 'measure'),
      derivation: { kind: 'formula', expression: '[thick-01] * 2' },
    };
    const table: Table = { ...TABLE, columns: [...TABLE.columns, twice] };
    const split = sampleInParts(table, twice, { split: KILN });
    expect(split.groups!.samples.map(({ values }) => Array.from(values, (x) => Math.round(x * 10) / 10))).toEqual([
      [16, 15.8, 16.6],
      [16.2, 16, 16.2],
    ]);
    const beside = sampleInParts(table, THICKNESS, { beside: [WIDTH, twice] });
    expect(beside.groups).toMatchObject({ by: null, without: 0 });
    expect(beside.groups!.samples.map(({ name }) => name)).toEqual(['thickness', 'width', 'twice']);
    expect(sampleInParts(table, THICKNESS, null)).not.toHaveProperty('groups');
  });

  it('is shown as rows that were chosen in a picture', () => {
    const chosen = arrangedRows(TABLE, { sort: [], only: [{ kind: 'rows', rows: [9, 2, 4] }] });
    expect(Array.from(chosen!)).toEqual([2, 4, 9]);
  });
});

group('the method of a picture in words', () => {
  const written = (id: string, request: object) => {
    const analysis = ANALYSES.find((one) => one.id === id)! as unknown as AnyAnalysis;
    return methodOf(analysis, analysis.request.parse({ column: 'thickness', ...request }));
  };

  it('names only what was chosen, and the axis it stands on', () => {
    expect(written('histogram', {})).toBe(
      'Histogram of thickness, bins: automatic, bin width from the rule, not rounded, starting at the minimum, shown as counts, with no fitted distribution; axis: the readings.',
    );
    expect(
      written('histogram', {
        rule: 'width',
        width: 0.25,
        start: 7,
        rounding: 'round',
        scale: 'density',
        curve: 'weibull',
        split: 'kiln',
      }),
    ).toBe(
      'Histogram of thickness by kiln, bins: chosen bin width, 0.25, rounded up, starting at 7, shown as densities, with the fitted Weibull; axis: the readings.',
    );
    expect(written('dots', { axis: 'given-scores', scoreMean: 8, scoreSd: 0.1 })).toBe(
      'Dot plot of thickness; axis: standard scores from a given mean and SD, mean 8 and SD 0.1.',
    );
    expect(written('box', { beside: ['width'], direction: 'upright', whiskers: 'ends' })).toContain(
      'Box plot of thickness and width, vertical, quartiles by linear interpolation, (i − 1)/(n − 1) (type 7), whiskers to minimum and maximum;',
    );
    expect(written('shares', { of: 'limits', lower: 7.9 })).toBe(
      'Proportion of thickness within other limits, from 7.9 to no upper limit, compared with the fitted normal, confidence intervals at 95 %.',
    );
    expect(written('shares', {})).toContain('within mean ± 1, 2 and 3 SD, compared with');
  });

  it('on standard scores says which mean and sd they are from', () => {
    const values = Float64Array.of(7.9, 8, 8.1, 8.2);
    const scores = (axis: object) => done<BoxResult>('box', sampleOf(values), axis).scores;
    const { mean, sd, sdPopulation } = figures(Array.from(values));
    expect(scores({ axis: 'scores' })).toEqual({ mean, sd, divisor: 'n − 1' });
    expect(scores({ axis: 'population-scores' })).toEqual({ mean, sd: sdPopulation, divisor: 'n' });
    expect(scores({ axis: 'given-scores', scoreMean: 8, scoreSd: 0.5 })).toEqual({
      mean: 8,
      sd: 0.5,
      divisor: 'given',
    });
    expect(scores({})).toBeNull();
    const missing = done<BoxResult>('box', sampleOf(values), { axis: 'given-scores', scoreMean: 8 });
    expect([missing.scores, missing.notes[0]!.code]).toEqual([null, 'no-scores']);
    expect(done<BoxResult>('box', sampleOf(Float64Array.of(5, 5)), { axis: 'scores' }).notes[0]!.code).toBe(
      'no-scores',
    );
  });
});
