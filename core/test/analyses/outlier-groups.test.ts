import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { OutlierRulesResult } from '../../src/analyses/outliers/outlier-rules-result.js';
import { foundAt, outlierRulesTable, ruleAtWorkRows } from '../../src/analyses/outliers/outlier-rules-words.js';
import { RULE_FACTS } from '../../src/analyses/outliers/rule-facts.js';
import { outlierRulesAnalysis } from '../../src/analyses/outliers/outlier-rules.js';
import {
  outlierScreenRows,
  outlierScreenTable,
  type OutlierScreenResult,
} from '../../src/analyses/outliers/outlier-screen-words.js';
import { outlierScreenAnalysis } from '../../src/analyses/outliers/outlier-screen.js';
import type { OutlyingGroupsResult } from '../../src/analyses/outliers/outlying-groups-result.js';
import {
  groupCauseWords,
  groupRows,
  groupTestFigures,
  outlyingGroupsTable,
} from '../../src/analyses/outliers/outlying-groups-words.js';
import { outlyingGroupsAnalysis } from '../../src/analyses/outliers/outlying-groups.js';
import { grubbsCritical, grubbs } from '../../src/outliers/grubbs.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable, type Piece } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { sampleOf } from '../samples.js';

function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
const words = (pieces: readonly Piece[]) => pieces.map(({ text }) => text).join('');
const codes = ({ notes }: { notes: readonly { code: string }[] }) => notes.map(({ code }) => code);
async function done<R>(id: string, sample: Sample, settings: object): Promise<R> {
  const result = await drive(inThisThread, { id, request: { column: sample.name, ...settings }, sample });
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as R;
}
/** Readings by group, rows counted on. */
function grouped(parts: readonly (readonly [string, ArrayLike<number>])[], by: string | null = 'kiln'): Sample {
  let row = 0;
  const samples = parts.map(([name, values]): Sample => ({
    ...sampleOf(Float64Array.from(values)),
    name,
    rows: Int32Array.from(values, () => ++row),
  }));
  const all = Float64Array.from(samples.flatMap(({ values }) => Array.from(values)));
  return { ...sampleOf(all), groups: { by, samples, without: 0 } };
}

describe('which rule', () => {
  const at = (n: number, settings: object = {}) =>
    done<OutlierRulesResult>('outlier-rules', sampleOf(normals(n, 1)), { replicates: 600, ...settings });

  it('gives false-alarm rate and power of each, as in a plain simulation of Grubbs', async () => {
    const result = await at(20, { replicates: 3_000 });
    const rule = result.rules.find((one) => one.rule === 'grubbs')!;
    const [samples, limit] = [3_000, grubbsCritical(20, 0.05, 'either')];
    const stream = createStream(99, 0);
    const draws = new Float64Array(20);
    let found = 0;
    for (let k = 0; k < samples; k++) {
      fillNormals(stream, draws);
      const own = draws.slice();
      own[7]! += 4;
      const shifted = own[7]!;
      const sorted = own.sort();
      const { statistic, at: place } = grubbs(sorted, 'either');
      if (statistic > limit && sorted[place] === shifted) found++;
    }
    const power = foundAt(rule, 'one', 4)!;
    expect(Math.abs(power - found / samples)).toBeLessThan(4 * Math.sqrt((2 * power * (1 - power)) / samples));
    expect(Math.abs(rule.falseAlarms!.share - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / 3_000));
  });

  it('lets Grubbs find no pair, the ESD both kinds, and says which rule serves', async () => {
    const result = await at(40);
    const of = (rule: string) => result.rules.find((one) => one.rule === rule)!;
    expect(foundAt(of('grubbs'), 'same-end', 6)).toBe(0);
    expect(foundAt(of('generalized-esd'), 'same-end', 6)!).toBeGreaterThan(0.8);
    expect(foundAt(of('generalized-esd'), 'each-end', 6)!).toBeGreaterThan(0.8);
    expect(of('dixon').reason).toContain('Dixon’s test takes at most 30 readings; here there are 40.');
    expect(words(outlierRulesAnalysis.finding(result))).toContain(
      'With 40 readings, one outlier of 5 SD is detected best by',
    );
    // Grubbs is the first step of the ESD: so few samples do not tell them apart, and the words do not either.
    expect(words(outlierRulesAnalysis.finding(result))).toContain(
      'With 40 readings, one outlier of 5 SD is detected best by',
    );
    const loud = result.notes.find(({ code }) => code === 'cries-wolf')!.text;
    for (const row of ruleAtWorkRows(result, 'one'))
      expect(loud.includes(`${RULE_FACTS[row.key as 'fences'].title} (`)).toBe(row.loud);
    const rows = ruleAtWorkRows(result, 'one');
    expect(rows.find(({ key }) => key === 'fences')).toMatchObject({ loud: true });
    expect(rows[0]!.shares).toHaveLength(5);
    expect(outlierRulesTable(result)).toHaveLength(1 + 7 * 16);
  });

  it('on one side knows no reading at each end, and of ten readings that z > 3 is mute', async () => {
    const result = await at(10, { side: 'lower' });
    const grubbsAt = result.rules.find(({ rule }) => rule === 'grubbs')!;
    expect(new Set(grubbsAt.power.map(({ arrangement }) => arrangement))).toEqual(new Set(['one', 'same-end']));
    expect(foundAt(grubbsAt, 'one', 6)!).toBeGreaterThan(0.7);
    expect(result.notes.find(({ code }) => code === 'mute')!.text).toContain('z above 3');
  });

  it('needs four readings, and says so', async () => {
    const few = await drive(inThisThread, {
      id: 'outlier-rules',
      request: { column: 'thickness' },
      sample: sampleOf(normals(3, 1)),
    });
    expect(isUnavailable(few) && few.reason).toContain('needs at least 4');
  });
});

describe('many columns', () => {
  const screen = (sample: Sample, settings: object = {}) =>
    done<OutlierScreenResult>('outlier-screen', sample, { replicates: 999, ...settings });

  it('share the level: what one alone would name may be chance among twenty', async () => {
    const parts = Array.from({ length: 20 }, (_, k): [string, Float64Array] => [`c${k}`, normals(30, 500 + k)]);
    const far = [...normals(30, 3), 9];
    const result = await screen(grouped([...parts, ['far', far]], null), { beside: ['c1'], rule: 'grubbs' });
    const naming = result.parts.filter(({ rows }) => rows!.length > 0);
    expect(naming.map(({ name }) => name)).toEqual(['far']);
    expect(words(outlierScreenAnalysis.finding(result))).toBe(
      '1 suspected outlier in 1 of 21 columns: far (1) (Grubbs’ test, significance level 0.05, Holm-adjusted for 21 tests).',
    );
    for (const { pHolm, test } of result.parts) expect(pHolm!).toBeGreaterThanOrEqual(test!.pValue!);
    expect(outlierScreenTable(result)).toHaveLength(22);
  });

  it('keep their rows where one cannot be judged, and have no level with a rule of thumb', async () => {
    const sample = grouped([
      ['north', [1, 1, 1]],
      ['south', [...normals(40, 5), 6]],
      ['east', [2]],
    ]);
    const result = await screen(sample, { split: 'kiln', rule: 'fences' });
    expect(result.parts.map(({ reason }) => reason === null)).toEqual([false, true, false]);
    expect(result.parts[1]).toMatchObject({ pHolm: null });
    expect(result.parts[1]!.rows!).toContain(44);
    expect(codes(result)).toEqual(expect.arrayContaining(['left-out', 'no-level']));
    const [north, south] = outlierScreenRows(result);
    expect([north!.names, south!.farthest]).toEqual(['–', expect.stringContaining('(row 44)')]);
    expect(words(outlierScreenAnalysis.finding(result))).toContain(
      '1 suspected outlier in 1 of 1 group by kiln: south (1) (the box-plot fences, no',
    );
  });

  it('by a rule that is simulated draw once for groups of one size', async () => {
    const result = await screen(
      grouped([
        ['a', normals(12, 1)],
        ['b', normals(12, 2)],
      ]),
      { split: 'kiln', rule: 'dixon' },
    );
    const [a, b] = result.parts;
    expect(a!.test!.critical).toBe(b!.test!.critical);
    expect(words(outlierScreenAnalysis.finding(result))).toContain(
      'No outliers found in any of 2 groups by kiln (Dixon’s test, significance level 0.05,',
    );
  });
});

describe('groups', () => {
  const groups = (sample: Sample, settings: object = {}) =>
    done<OutlyingGroupsResult>('outlying-groups', sample, { split: 'kiln', replicates: 999, ...settings });
  const five = (more: (k: number) => (z: number) => number) =>
    grouped(Array.from({ length: 5 }, (_, k) => [`k${k}`, normals(6, 70 + k).map(more(k))]));

  it('name the one that scatters more, by Cochran’s formula where all have as many readings', async () => {
    const result = await groups(five((k) => (z) => (k === 2 ? 8 * z : z)));
    const [spread] = result.tests;
    expect(spread).toMatchObject({ test: 'cochran', group: 'k2', pMethod: 'formula' });
    expect(spread!.pSimulated!.pValue).toBeLessThan(0.01);
    expect(words(outlyingGroupsAnalysis.finding(result))).toContain(
      'Outlying: k2 (spread) among the 5 groups by kiln (Cochran’s test p < 0.0001, Grubbs’ test',
    );
    expect(groupCauseWords(result)).toContain(
      'A test result alone does not justify excluding a group. Look for the cause first.',
    );
    expect(groupRows(result).map(({ farSpread }) => farSpread)).toEqual([false, false, true, false, false]);
    expect(groupTestFigures(result)[0]!.texts.at(-1)).toBe('k2');
  });

  it('flag the group with an outlying mean; h and k are the z of the mean and the SD over the pooled SD', async () => {
    const result = await groups(five((k) => (z) => z / 4 + (k === 4 ? 6 : 0)));
    expect(result.tests[1]).toMatchObject({ test: 'grubbs', group: 'k4' });
    const means = result.groups.map(({ mean }) => mean);
    const mean = means.reduce((a, b) => a + b) / 5;
    const sd = Math.sqrt(means.reduce((sum, m) => sum + (m - mean) ** 2, 0) / 4);
    const pooled = Math.sqrt(result.groups.reduce((sum, { sd: own }) => sum + own! ** 2, 0) / 5);
    for (const { mean: own, sd: spread, h, k } of result.groups) {
      expect(h).toBeCloseTo((own - mean) / sd, 10);
      expect(k).toBeCloseTo(spread! / pooled, 10);
    }
    expect(result.groups[4]!.h!).toBeGreaterThan(result.groups[4]!.hCritical![0]!);
    expect(outlyingGroupsTable(result)[0]).toHaveLength(11);
  });

  it('of different sizes have Cochran simulated, and say that means of small ones scatter more', async () => {
    const result = await groups(
      grouped([
        ['a', normals(4, 1)],
        ['b', normals(9, 2)],
        ['c', normals(2, 3)],
        ['d', [1]],
      ]),
    );
    expect(result.tests[0]).toMatchObject({ pMethod: 'simulated', pFormula: null });
    expect(codes(result)).toContain('sizes-differ');
    expect(result.groups[3]).toMatchObject({ sd: null, k: null });
    // Fewer degrees of freedom: a greater critical value.
    expect(result.groups[2]!.kCritical![0]!).toBeGreaterThan(result.groups[1]!.kCritical![0]!);
    expect(words(outlyingGroupsAnalysis.finding(result))).toContain(
      'No outlying group in spread or mean among the 4 groups by kiln (Cochran’s test p = 0.89,',
    );
  });

  it('have their own far readings named, the level shared among them', async () => {
    const result = await groups(
      grouped([
        ['a', [...normals(20, 1), 12]],
        ['b', normals(20, 2)],
      ]),
    );
    expect(result.parts[0]!.rows).toEqual([21]);
    expect(result.notes.find(({ code }) => code === 'within')!.text).toContain('a: row 21');
    // Two groups have no h.
    expect(result.tests[1]).toMatchObject({ reason: expect.stringContaining('at least 3 groups'), pValue: null });
    expect(result.groups[0]!.h).toBeNull();
  });

  it('in coarse steps say that Cochran’s p is only near', async () => {
    const coarse = five(() => (z) => Math.round(z));
    const steps = coarse.groups!.samples.map((part) => ({ ...part, resolution: 1 }));
    const result = await groups({ ...coarse, resolution: 1, groups: { ...coarse.groups!, samples: steps } });
    expect(codes(result)).toContain('coarse');
  });

  it('that cannot be compared are answered in words', async () => {
    const why = async (sample: Sample, settings: object = {}) => {
      const result = await drive(inThisThread, {
        id: 'outlying-groups',
        request: { column: 'thickness', replicates: 199, ...settings },
        sample,
      });
      return isUnavailable(result) ? result.reason : '';
    };
    expect(await why(sampleOf(normals(5, 1)))).toContain('Choose a label column to split by.');
    expect(await why(grouped([['a', [1, 2]]]), { split: 'kiln' })).toContain('one group by kiln');
    const flat = await groups(
      grouped([
        ['a', [1, 1]],
        ['b', [1, 1]],
        ['c', [1, 1]],
      ]),
    );
    expect(flat.tests.map(({ reason }) => reason)).toEqual([
      'All readings within each group are equal; Cochran’s test needs readings that vary.',
      'All group means are equal.',
    ]);
    const lots = grouped(Array.from({ length: 101 }, (_, k) => [`g${k}`, [k, k + 1]]));
    expect(await why(lots, { split: 'kiln' })).toContain('at most 100');
  });
});
