import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import {
  extremeRows,
  extremesTable,
  influenceTable,
  ruleRows,
  rulesTable,
} from '../../src/analyses/outliers/outliers-figures.js';
import { studyTest, type OutliersResult } from '../../src/analyses/outliers/outliers-result.js';
import { causeWords } from '../../src/analyses/outliers/outliers-words.js';
import { withoutFigures } from '../../src/analyses/outliers/without-figures.js';
import { outliersAnalysis } from '../../src/analyses/outliers/outliers.js';
import { hasLevel, type Rule } from '../../src/outliers/rules.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { column, reference, relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

const run = (sample: Sample, settings: object = {}) =>
  drive(inThisThread, { id: 'outliers', request: { column: sample.name, replicates: 999, ...settings }, sample });
async function done(values: ArrayLike<number>, settings: object = {}, facts: Partial<Sample> = {}) {
  const result = await run({ ...sampleOf(Float64Array.from(values)), ...facts }, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as OutliersResult;
}
const refused = async (values: ArrayLike<number>, settings: object = {}, facts: Partial<Sample> = {}) => {
  const result = await run({ ...sampleOf(Float64Array.from(values)), ...facts }, settings);
  if (!isUnavailable(result)) throw new Error('It was not refused.');
  return result.reason;
};
const textOf = (result: OutliersResult) =>
  outliersAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');
const codes = ({ notes }: OutliersResult) => notes.map(({ code }) => code);
const testOf = ({ tests }: OutliersResult, rule: Rule) => tests.find((test) => test.rule === rule)!;
function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
/** Two far out together, each of which hides the other: of 59 clean ones. */
const masked = () => Float64Array.from([...normals(57, 3), 3.9, 3.95]);

interface Reference {
  columns: Record<
    string,
    { grubbs: { statistic: number; value: number; pFormula: number }; generalizedEsd: { count: number } | null }
  >;
}
const known = reference<Reference>('outliers').columns;

describe('the rules side by side', () => {
  it.each(Object.keys(known))('name of %s what the reference names', async (name) => {
    const values = column(name);
    const result = await done(values, { replicates: 199 });
    const { grubbs, generalizedEsd } = known[name]!;
    const found = testOf(result, 'grubbs');
    expect(relativeError(found.statistic!, grubbs.statistic)).toBeLessThan(1e-9);
    expect(relativeError(found.pFormula!.pValue, grubbs.pFormula)).toBeLessThan(1e-9);
    expect(found.rows!.length > 0).toBe(grubbs.pFormula < 0.05);
    if (found.rows!.length > 0) expect(values[found.rows![0]! - 1]).toBe(grubbs.value);
    const esd = testOf(result, 'generalized-esd');
    if (generalizedEsd) expect([esd.count, esd.rows!.length >= esd.count!]).toEqual([generalizedEsd.count, true]);
    else expect(esd.reason).toContain('needs at least 4');
  });

  it('report a pair that masks itself in Grubbs’ test, and that it is not used', async () => {
    const result = await done(masked());
    expect(testOf(result, 'grubbs').rows).toEqual([]);
    expect(testOf(result, 'generalized-esd').rows).toEqual([59, 58]);
    expect(codes(result)).toContain('masking');
    expect(textOf(result)).toContain(
      'Suspected outliers: rows 59 (3.9500) and 58 (3.9000) (generalised ESD test, up to 5',
    );
    expect(causeWords(result)).toContain(
      'A test result alone does not justify setting a reading aside. Look for the cause first.',
    );
    const alone = await done(masked(), { most: 1 });
    expect(studyTest(alone).rows).toEqual([]);
    expect(alone.notes.find(({ code }) => code === 'masking')!.text).toContain(
      'An outlier may be masked: two readings on the same side are conspicuous together (rows 59',
    );
  });

  it('report swamping: a pair test includes an ordinary reading', async () => {
    const result = await done([...normals(30, 8), 7]);
    expect(testOf(result, 'generalized-esd').count).toBe(1);
    expect(result.notes.find(({ code }) => code === 'swamping')!.text).toContain(
      'The test for two outliers may flag one reading too many (swamping): it flags rows 31',
    );
  });

  it('say of ten readings that z > 3 can never name one, and of Dixon beyond 30 why it says nothing', async () => {
    const ten = await done(normals(10, 4));
    expect(ten.notes.find(({ code }) => code === 'z-limit')!.text).toBe(
      'The rule z > 3 cannot find any outlier here: with 10 readings, |z| is at most 2.85. Use another rule.',
    );
    expect(testOf(ten, 'dixon').ratio).toBe('r11');
    const many = await done(normals(31, 4));
    expect(testOf(many, 'dixon')).toMatchObject({
      rows: null,
      reason: expect.stringContaining('at most 30 readings'),
    });
  });

  it('say where only rules of thumb speak, and how often these cry wolf', async () => {
    const result = await done([...normals(40, 2), 2.6], { rule: 'grubbs' });
    expect(studyTest(result).rows).toEqual([]);
    expect(testOf(result, 'fences').rows!.length).toBeGreaterThan(0);
    expect(result.notes.find(({ code }) => code === 'cries-wolf')!.text).toContain(
      'The flagged readings may be false alarms: only rules of thumb flag any, namely the',
    );
    expect(textOf(result)).toContain(
      'No outliers found (Grubbs’ test, p\u00a0≤\u00a00.82). A further reading below −4.1616 or above',
    );
  });

  it('hold a one-sided question to its side, and say so', async () => {
    const values = [...normals(30, 5), -9];
    const upper = await done(values, { side: 'upper', rule: 'grubbs' });
    expect(studyTest(upper)).toMatchObject({ side: 'upper', rows: [], lines: { lower: null } });
    expect(textOf(upper)).toContain(
      'No outliers found (Grubbs’ test, upper side only, p ≤ 1). A further reading above',
    );
    expect(testOf(upper, 'pair-both-ends').reason).toContain('This test needs both sides. Choose both sides.');
    expect(upper.extremes.every(({ value }) => value > 0)).toBe(true);
    const lower = await done(values, { side: 'lower', rule: 'grubbs' });
    expect(studyTest(lower).rows).toEqual([31]);
  });

  it('have a p by formula and one by simulation, which agree', async () => {
    const { pFormula, pSimulated } = testOf(
      await done(normals(12, 21), { rule: 'grubbs', replicates: 20_000 }),
      'grubbs',
    );
    const [low, high] = pSimulated!.pInterval;
    expect(pFormula!.exact ? pFormula!.pValue >= low - 0.01 : pFormula!.pValue >= low).toBe(true);
    expect(pFormula!.exact ? pFormula!.pValue <= high + 0.01 : true).toBe(true);
  });

  const flaggedWith = async (values: ArrayLike<number>, x: number, settings: object) => {
    const { rows } = studyTest(await done([...Array.from(values), x], settings));
    return rows!.includes(values.length + 1);
  };

  it('say where one further reading would be flagged: 0.02 SD beyond it is, 0.02 SD inside it is not', async () => {
    let solved = 0;
    for (const rule of ['grubbs', 'generalized-esd', 'dixon', 'modified-z', 'fences', 'z-score'] as const)
      for (const n of [5, 9, 19, 24, 30, 60, 100].slice(0, samplesDrawn(4, 7)))
        for (const step of [0, 0.1, 1]) {
          const drawn = normals(n, 100 + n).map((x) => (step ? Math.round(x / step) * step : x));
          const settings = { rule, most: n < 20 ? 1 : 3, replicates: 499 };
          const { lines, sd } = await done(drawn, settings).then((of) => ({ ...testOf(of, rule), sd: of.sd }));
          if (!lines) continue;
          for (const [end, sign] of [
            ['lower', -1],
            ['upper', 1],
          ] as const) {
            const at = lines[end];
            if (at === null) continue;
            solved++;
            const what = `${rule}, n = ${n}, step ${step}, ${end}`;
            expect(await flaggedWith(drawn, at + sign * 0.02 * sd, settings), `${what}, beyond`).toBe(true);
            expect(await flaggedWith(drawn, at - sign * 0.02 * sd, settings), `${what}, inside`).toBe(false);
          }
        }
    expect(solved).toBeGreaterThan(samplesDrawn(90, 180));
  });

  it('solve the threshold of the audited column through the rule: 8.40 is not flagged by Grubbs’ test', async () => {
    const values = [7.954, 8.145, 8.086, 7.979, 8.065];
    const { lines } = studyTest(await done(values, { rule: 'grubbs' }));
    const others = values.filter((x) => x !== 8.145);
    // In place of 8.145 the threshold is 8.441 (solved through the rule): the four others are the sample then.
    const without = studyTest(await done(others, { rule: 'grubbs' }));
    expect(without.lines!.upper!).toBeCloseTo(8.441, 3);
    expect(lines!.upper!).toBeGreaterThan(8.4);
  });

  it('give no threshold where the rule has none: pairs, z of few readings, another family, coarse steps', async () => {
    const values = normals(9, 31);
    expect(testOf(await done(values, { rule: 'pair-same-end' }), 'pair-same-end').lines).toBeNull();
    expect(testOf(await done(values), 'z-score').lines).toBeNull();
    const skewed = normals(30, 3).map((x) => Math.exp(x / 3));
    const other = await done(skewed, { rule: 'grubbs', family: 'gamma' });
    expect(studyTest(other).lines).toBeNull();
    expect(textOf(other)).not.toContain('further reading');
    const coarse = await done(normals(30, 3).map(Math.round), { rule: 'grubbs' }, { resolution: 1 });
    expect(studyTest(coarse).lines).toBeNull();
  });
});

describe('the level of the generalised ESD', () => {
  it('holds where Rosner’s approximation is generous: what is not unlikely enough is not named', async () => {
    const [n, samples] = [12, samplesDrawn(80, 250)];
    const alpha = 0.1;
    let [named, published] = [0, 0];
    for (let k = 0; k < samples; k++) {
      const result = await done(normals(n, 90_000 + k), { most: 3, alpha, replicates: 599, seed: k });
      const { rows, count, pValue } = studyTest(result);
      if (rows!.length > 0) named++;
      if (count! > 0) published++;
      if (count! > 0 && pValue! >= alpha) expect(codes(result)).toContain('approximation');
    }
    expect(Math.abs(named / samples - alpha)).toBeLessThan(4 * Math.sqrt((alpha * (1 - alpha)) / samples));
    expect(published).toBeGreaterThan(named);
  });
});

describe('another family', () => {
  const lognormals = () => normals(60, 6).map((z) => Math.exp(1 + 0.9 * z));

  it('finds ordinary what a normal would not, and says both', async () => {
    const result = await done(lognormals(), { family: 'lognormal', most: 3 });
    expect(studyTest(result)).toMatchObject({ rows: [], pMethod: 'simulated' });
    expect(result.forNormal!.rows!.length).toBeGreaterThan(0);
    expect(textOf(result)).toContain(
      'No outliers found (generalised ESD test for a lognormal distribution, up to 3 outliers,',
    );
  });

  it('flags a reading that is extreme on its own scale too', async () => {
    const result = await done([...lognormals(), 4_000], { family: 'lognormal', rule: 'grubbs' });
    expect(studyTest(result).rows).toEqual([61]);
    expect(textOf(result)).toContain('Suspected outlier: row 61 (4000.0) (Grubbs’ test for a lognormal distribution,');
  });

  it.each(['gamma', 'weibull'])('%s keeps its level at n = 30', async (family) => {
    const [samples, alpha] = [samplesDrawn(50, 160), 0.1];
    let found = 0;
    for (let k = 0; k < samples; k++) {
      const z = normals(60, 40_000 + k);
      // A chi-square on 4 and a Weibull of shape 2, from pairs of normals.
      const values = Float64Array.from({ length: 30 }, (_, i) =>
        family === 'gamma'
          ? -2 * Math.log(uniform(z[2 * i]!)) - 2 * Math.log(uniform(z[2 * i + 1]!))
          : Math.sqrt(-Math.log(uniform(z[i]!))),
      );
      const { rows } = studyTest(await done(values, { family, rule: 'grubbs', alpha, replicates: 199, seed: k }));
      if (rows!.length > 0) found++;
    }
    expect(Math.abs(found / samples - alpha)).toBeLessThan(4 * Math.sqrt((alpha * (1 - alpha)) / samples));
  });

  it('that cannot be fitted says why', async () => {
    expect(await refused([-1, 2, 3, 4, 5], { family: 'lognormal' })).toContain(
      'The minimum is −1.0000; the lognormal distribution has no values at or below 0.',
    );
  });
});

/** The share of a standard normal below z, to the accuracy that a sample needs (Zelen & Severo 1964, 26.2.17). */
function uniform(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    0.3989422804 *
    Math.exp((-z * z) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

describe('what changes without', () => {
  it('is given for each flagged reading and for all of them, as without them', async () => {
    const values = masked();
    const result = await done(values, {}, {});
    const { before, each, all } = result.without!;
    expect(each.map(({ row }) => row)).toEqual([59, 58]);
    const rest = Array.from(values.subarray(0, 57));
    const mean = rest.reduce((a, b) => a + b) / 57;
    expect(relativeError(all!.mean, mean)).toBeLessThan(1e-10);
    expect([before.n, each[0]!.after.n, all!.n]).toEqual([59, 58, 57]);
    expect(all!.pMethod).toBe('asymptotic');
    const rows = withoutFigures(result, before, all!);
    expect(rows.find(({ key }) => key === 'n')!.texts).toEqual(['59', '57', '−2']);
    expect(rows.map(({ key }) => key)).not.toContain('outside');
  });

  it('has the shares outside limits, and p simulated where no formula holds', async () => {
    const result = await done([1, 2, 3, 4, 5, 40], { rule: 'grubbs', lowerLimit: 0, upperLimit: 10 });
    const { before, all } = result.without!;
    expect(before.outside!.counted).toBeCloseTo(1 / 6, 12);
    expect(all!.outside!.counted).toBe(0);
    expect([before.pMethod, all!.pMethod]).toEqual(['simulated', 'simulated']);
    expect(withoutFigures(result, before, all!).map(({ key }) => key)).toContain('outside');
  });

  it('is nothing where the rule names none', async () => {
    expect((await done(normals(20, 2))).without).toMatchObject({ each: [], all: null });
  });

  it('of every reading is in the table of influence', async () => {
    const values = normals(12, 9);
    const { influence, mean, sd } = await done(values);
    const table = influenceTable({ ...(await done(values)) });
    expect(table).toHaveLength(13);
    expect(influence.mean.reduce((a, b) => a + b) / 12).toBeCloseTo(mean, 12);
    expect(Math.min(...influence.sd)).toBeLessThan(sd);
  });
});

describe('odd readings', () => {
  it('too few, all alike, or censored are answered in words', async () => {
    expect(await refused([1])).toContain('1 reading');
    expect(await refused([1, 2])).toContain('needs at least 3');
    expect(await refused([5, 5, 5, 5])).toContain(
      'All 4 readings of thickness are 5.0000; an outlier test needs readings that vary.',
    );
    const censored = { limits: Float64Array.of(0.05), sides: Int32Array.of(-1), rows: Int32Array.of(9) };
    expect(await refused([1, 2, 3, 4], {}, { beyondLimit: 1, censored })).toContain('below 0.05');
  });

  it('three have Grubbs and Dixon, and the ESD says what it needs', async () => {
    const result = await done([1, 1.1, 9]);
    expect(textOf(result)).toBe('The generalised ESD test needs at least 4 readings.');
    expect(testOf(result, 'grubbs').statistic).toBeCloseTo(1.1545, 3);
    expect(testOf(result, 'dixon').ratio).toBe('r10');
  });

  it('all alike but one, and half of them alike, have figures without a number that is none', async () => {
    const one = await done([3, 3, 3, 3, 3, 3, 3, 8]);
    expect(testOf(one, 'fences')).toMatchObject({ statistic: null, rows: [8] });
    expect(codes(one)).toContain('no-width');
    const half = await done([5, 5, 5, 5, 5, 6, 8], { rule: 'modified-z' });
    expect(half.extremes[0]!.modifiedZ).toBeCloseTo(4.189, 2);
  });

  it('that are equally extreme are flagged together', async () => {
    const result = await done([...normals(30, 14), 9, 9], { rule: 'generalized-esd' });
    expect(studyTest(result).rows).toEqual([31, 32]);
    const grubbs = await done([...normals(200, 14), 9, 9], { rule: 'grubbs' });
    expect(studyTest(grubbs).rows).toEqual([201, 202]);
    expect(grubbs.notes.find(({ code }) => code === 'tied-ends')!.text).toContain(
      'The most extreme reading is not unique: 2 readings are 9.0000. All of them are flagged',
    );
  });

  it('in coarse steps are compared with samples rounded alike: their level holds', async () => {
    const coarse = await done(
      normals(40, 17).map((z) => Math.round(z * 2) + 20),
      {},
      { resolution: 1 },
    );
    expect(coarse.rounded).toBe(true);
    expect(testOf(coarse, 'grubbs')).toMatchObject({ pMethod: 'simulated', pFormula: null });
    expect(codes(coarse)).toContain('coarse');
    const samples = 150;
    let found = 0;
    for (let k = 0; k < samples; k++) {
      const values = normals(15, 60_000 + k).map((z) => Math.round(1.2 * z));
      const { rows } = studyTest(
        await done(values, { rule: 'grubbs', alpha: 0.1, replicates: 299 }, { resolution: 1 }),
      );
      if (rows!.length > 0) found++;
    }
    // Ties leave the test on the safe side.
    expect(found / samples).toBeLessThan(0.1 + 4 * Math.sqrt(0.09 / samples));
    expect(found / samples).toBeGreaterThan(0.01);
  });

  it('set aside before make it a second look', async () => {
    const result = await done(normals(20, 2), {}, { setAside: 2 });
    expect(result.notes[0]!.text).toContain(
      'The significance level may not hold: 2 readings are already set aside. If a test flagged',
    );
  });

  it('far from 0 keep their digits, and huge or tiny ones are computed or refused', async () => {
    const near = await done(
      normals(30, 3).map((z) => Math.round(z * 10) / 10 + 10_000_000),
      {},
      { resolution: 0.1 },
    );
    const plain = await done(
      normals(30, 3).map((z) => Math.round(z * 10) / 10),
      {},
      { resolution: 0.1 },
    );
    expect(relativeError(testOf(near, 'grubbs').statistic!, testOf(plain, 'grubbs').statistic!)).toBeLessThan(1e-8);
    expect(await refused([1e300, 2e300, 5e300])).toContain('1e150');
    expect((await done([1e-140, 2e-140, 3e-140, 50e-140])).n).toBe(4);
  });

  it('from frequencies are flagged by their row, once', async () => {
    const values = Float64Array.from([...normals(30, 3), 9, 9, 9]);
    const rows = Int32Array.from(values, (_, i) => Math.min(i + 1, 31));
    const result = (await run({ ...sampleOf(values), rows, tallied: true }, { most: 3 })) as OutliersResult;
    expect(studyTest(result).rows).toEqual([31]);
    expect(studyTest(result).steps!.map(({ row }) => row)).toEqual([31, 31, 31]);
    expect(result.extremes.filter(({ row }) => row === 31)).toHaveLength(1);
    expect(result.without!.all!.n).toBe(30);
  });

  it('by label give the source of the extremes', async () => {
    const values = Float64Array.from([...normals(20, 2), 8]);
    const whole = sampleOf(values);
    const part = (name: string, from: number, to: number): Sample => ({
      ...sampleOf(values.slice(from, to)),
      name,
      rows: whole.rows.slice(from, to),
    });
    const groups = { by: 'kiln', samples: [part('north', 0, 10), part('south', 10, 21)], without: 0 };
    const result = (await run({ ...whole, groups }, { split: 'kiln' })) as OutliersResult;
    expect(result.extremes[0]).toMatchObject({ row: 21, group: 'south' });
  });
});

describe('figures of outliers', () => {
  it('give the extremes with possible typing errors, and every rule, as texts and tables', async () => {
    const values = [...normals(40, 3).map((z) => 1.78 + 0.06 * z), 17.84];
    const result = await done(values, {}, { resolution: 0.001 });
    const [first] = extremeRows(result, studyTest(result).rows!);
    expect(first).toMatchObject({
      row: 41,
      value: '17.840',
      fence: 'beyond the outer fence',
      probability: '< 0.1\u00a0%',
      named: true,
    });
    expect(first!.slips.map(({ words }) => words)).toContain('decimal point shifted: 1.784');
    const rows = ruleRows(result);
    expect(rows.map(({ key }) => key)).toHaveLength(8);
    expect(rows.filter(({ test }) => !hasLevel(test.rule)).every(({ p }) => p === '–')).toBe(true);
    expect(rows.find(({ ofStudy }) => ofStudy)!.key).toBe('generalized-esd');
    expect(rulesTable(result)).toHaveLength(9);
    expect(extremesTable(result)[1]).toHaveLength(8);
  });

  it('give the most extreme reading the simulated p of Grubbs’ test, and the next one p among the others', async () => {
    const values = [...normals(40, 8), 7, 7.5];
    const result = await done(values, { replicates: 1_999 });
    const [first, second, third] = result.extremes;
    expect(first!.probability).toBe(testOf(result, 'grubbs').pSimulated!.pValue);
    expect(first!.zWithout).toBeCloseTo(first!.z, 12);
    // The outlier above it does not make it ordinary.
    expect(second!.value).toBe(7);
    expect(second!.probability!).toBeLessThan(0.001);
    expect(second!.zWithout!).toBeGreaterThan(second!.z);
    expect(third!.probability!).toBeGreaterThan(0.05);
  });

  it('give probabilities that are uniform in clean samples, of the first and of the third reading', async () => {
    const p = { first: 0, third: 0 };
    for (let seed = 1; seed <= 200; seed++) {
      const { extremes } = await done(normals(20, seed), { replicates: 199 });
      if (extremes[0]!.probability! <= 0.5) p.first++;
      if (extremes[2]!.probability! <= 0.5) p.third++;
    }
    // 200 halves: 100 ± 3.5 standard deviations.
    for (const found of Object.values(p)) expect(Math.abs(found - 100)).toBeLessThan(25);
  });
});
