import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { advance, inThisThread } from '../../src/analyses/registry.js';
import { drive } from '../../src/road/runner.js';
import { missedSentence, normalityFinding, normalityNotes } from '../../src/analyses/fit/normality-words.js';
import { outcomeOf } from '../../src/analyses/fit/normality-tested.js';
import type { NormalityResult } from '../../src/analyses/fit/normality-result.js';
import {
  adjustedAndersonDarling,
  andersonDarling,
  andersonDarlingAsymptotic,
} from '../../src/goodness-of-fit/normality/anderson-darling.js';
import {
  createScratch,
  LOGNORMAL_LOG_SD,
  replicateStatistic,
  simulateAndersonDarling,
} from '../../src/goodness-of-fit/normality/anderson-darling-simulation.js';
import { simulatedCriticalValue, simulatedP } from '../../src/goodness-of-fit/simulated-p.js';
import { roundDraw } from '../../src/goodness-of-fit/normality/rounded-draws.js';
import {
  roundedAndersonDarling,
  simulateRoundedAndersonDarling,
} from '../../src/goodness-of-fit/normality/rounded-anderson-darling.js';
import { countSteps, fitRoundedNormal, populationOf, stepsOf } from '../../src/goodness-of-fit/rounded-normal.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { createStream } from '../../src/random/stream.js';
import { column, columns, reference, relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

interface Expected {
  'anderson-darling': { statistic: number; adjusted: number; pAsymptotic: number | null; tolerance?: number };
}
const expected = reference<Record<string, Expected>>('normality');
const simulated =
  reference<
    Record<
      string,
      Record<'ordinary' | 'roundedToResolution', { pSimulated: number; monteCarloError: number } | undefined>
    >
  >('simulated');

function statisticOf(values: Float64Array): number {
  const sorted = Float64Array.from(values).sort();
  const { n, mean, s2 } = centralMoments(sorted);
  return andersonDarling(sorted, mean, Math.sqrt(s2 / (n - 1)));
}

async function normality(
  values: Float64Array,
  resolution: number | null,
  settings: object = {},
): Promise<NormalityResult> {
  const sample = { ...sampleOf(values), resolution };
  const request = { column: sample.name, ...settings };
  return (await drive(inThisThread, { id: 'normality', request, sample })) as NormalityResult;
}

describe('Anderson–Darling statistic', () => {
  it.each(Object.keys(expected))('agrees with the reference on %s, with its asymptotic p', (name) => {
    const values = column(name);
    const want = expected[name]!['anderson-darling'];
    const statistic = statisticOf(values);
    expect(relativeError(statistic, want.statistic)).toBeLessThan(want.tolerance ?? 1e-9);
    expect(relativeError(adjustedAndersonDarling(statistic, values.length), want.adjusted)).toBeLessThan(1e-9);
    const p = andersonDarlingAsymptotic(statistic, values.length);
    if (want.pAsymptotic === null) expect(p).toBeNull();
    else expect(relativeError(p!, want.pAsymptotic)).toBeLessThan(1e-8);
  });

  it('is finite for one reading 316 sd away among 100 000, and has no asymptotic p there', () => {
    const values = Float64Array.from({ length: 100_000 }, (_, i) => (i === 0 ? 1e9 : i % 2));
    const statistic = statisticOf(values);
    expect(Number.isFinite(statistic)).toBe(true);
    expect(andersonDarlingAsymptotic(statistic, values.length)).toBeNull();
  });

  it('of a replicate equals the careful one to 1e-11 for any size', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 120 }), fc.integer({ min: 0, max: 1e6 }), (n, seed) => {
        const values = Float64Array.from({ length: n }, (_, i) => Math.sin(seed + 12.9898 * i * i) * 5);
        const careful = statisticOf(values);
        const scratch = createScratch(n);
        scratch.values.set(values);
        expect(replicateStatistic(scratch)).toBeCloseTo(careful, 10);
      }),
    );
  });

  it('does not change when readings are shifted and scaled', () => {
    const values = column('normal-40');
    const moved = values.map((x) => 3 - 8 * x);
    expect(statisticOf(moved)).toBeCloseTo(statisticOf(values), 9);
  });
});

describe('simulated p of A²', () => {
  it.each(Object.keys(simulated))(
    'agrees with 200 000 independent replicates on %s within four errors',
    async (name) => {
      const replicates = samplesDrawn(10_000, 40_000);
      const result = await normality(column(name), columns[name]!.resolution, { replicates, seed: 77 });
      const test = result.tests[0]!;
      const check = (found: number, want: { pSimulated: number; monteCarloError: number } | undefined) => {
        if (!want) return;
        const own = Math.sqrt((want.pSimulated * (1 - want.pSimulated)) / replicates) + 1 / replicates;
        expect(Math.abs(found - want.pSimulated)).toBeLessThan(4 * Math.hypot(own, want.monteCarloError));
      };
      check(test.pSimulated!.pValue, simulated[name]!.ordinary);
      // Coarse readings are compared by their counted steps, a statistic of its own (docs/decisions/0012).
      if (test.roundedStatistic === null) check(test.pResolution!.pValue, simulated[name]!.roundedToResolution);
    },
  );

  it('rejects a true normal at the level', () => {
    const samples = simulateAndersonDarling({ n: 12, population: 'normal', rounding: null }, createStream(5, 0), 4000);
    const null_ = simulateAndersonDarling({ n: 12, population: 'normal', rounding: null }, createStream(6, 0), 40_000);
    const critical = simulatedCriticalValue([null_], 0.05);
    const rejected = samples.filter((a) => a >= critical).length / samples.length;
    expect(Math.abs(rejected - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / 4000));
  });

  it('counts ties, adds the sample itself, and gives the interval of the count', () => {
    const p = simulatedP(2, [Float64Array.of(1, 2), Float64Array.of(3, 1.5)], 9);
    expect(p).toMatchObject({ pValue: 3 / 5, atLeastAsExtreme: 2, replicates: 4, seed: 9 });
    expect(p.pInterval[0]).toBeLessThan(0.5);
    expect(p.pInterval[1]).toBeGreaterThan(0.5);
  });

  it('uses a lognormal with skewness 1 as its example of a lean', () => {
    const w = Math.exp(LOGNORMAL_LOG_SD ** 2);
    expect((w + 2) * Math.sqrt(w - 1)).toBeCloseTo(1, 12);
  });
});

describe('A² of counted steps', () => {
  const countedSteps = (values: Float64Array, resolution: number) => countSteps(stepsOf(values, resolution));

  it('and the rounded normal under it are those of 40-digit arithmetic', () => {
    const cells = countedSteps(column('coarse-60'), 0.5);
    const fitted = fitRoundedNormal(cells)!;
    expect(relativeError(fitted.mean, 2.0499988213764381839)).toBeLessThan(1e-12);
    expect(relativeError(fitted.sd, 1.7693265567406890875)).toBeLessThan(1e-12);
    expect(relativeError(roundedAndersonDarling(cells), 0.39863725710198407229)).toBeLessThan(1e-12);
  });

  it('becomes Anderson and Darling’s as the steps get finer, for the normal with divisor n', () => {
    const values = column('normal-40').map((x) => Math.round(x * 400));
    const sorted = values.slice().sort();
    const { n, mean, s2 } = centralMoments(sorted);
    const fine = andersonDarling(sorted, mean, Math.sqrt(s2 / n));
    expect(Math.abs(roundedAndersonDarling(countedSteps(values, 1)) - fine)).toBeLessThan(0.01 * fine);
  });

  it('does not depend on location, order or direction of the readings', () => {
    const values = column('coarse-60');
    const statistic = roundedAndersonDarling(countedSteps(values, 0.5));
    for (const other of [values.map((x) => x + 1e9), values.map((x) => -x), values.toReversed()]) {
      expect(relativeError(roundedAndersonDarling(countedSteps(other, 0.5)), statistic)).toBeLessThan(1e-9);
    }
  });

  it('is 0 where a rounded normal fits whatever comes: two neighbouring values', () => {
    expect(roundedAndersonDarling(countedSteps(Float64Array.of(5, 5, 5, 6), 1))).toBe(0);
  });

  it('grows with a reading far beyond anything, and stays finite', () => {
    const values = Float64Array.from({ length: 4000 }, (_, i) => (i === 0 ? 400 : i % 5));
    const far = roundedAndersonDarling(countedSteps(values, 1));
    expect(far).toBeGreaterThan(10);
    expect(far).toBeLessThan(Infinity);
  });

  it('rejects a rounded normal at 5 % in 5 of 100 samples, however coarse the steps', () => {
    for (const [stepInSd, n] of [
      [0.25, 20],
      [0.5, 8],
      [1, 20],
    ] as const) {
      const stream = createStream(9, n);
      const values = new Float64Array(n);
      const samples = samplesDrawn(120, 500);
      let rejected = 0;
      for (let k = 0; k < samples; k++) {
        roundDraw({ mean: (k * 0.618034) % 1, sd: 1 / stepInSd }, stream, values);
        const cells = countSteps(values);
        const found = simulateRoundedAndersonDarling({ n, population: populationOf(cells)! }, createStream(k, 1), 99);
        if (simulatedP(roundedAndersonDarling(cells), [found], k).pValue <= 0.05) rejected++;
      }
      const error = Math.sqrt((0.05 * 0.95) / samples);
      expect(Math.abs(rejected / samples - 0.05), `steps of ${stepInSd} sd, n = ${n}`).toBeLessThan(4 * error);
    }
  });

  it('draws again where rounding leaves no spread, and says so where it nearly always does', () => {
    const found = simulateRoundedAndersonDarling(
      { n: 3, population: { mean: 0.02, sd: 0.3 } },
      createStream(1, 0),
      500,
    );
    expect(found.every(Number.isFinite)).toBe(true);
    const never = () => roundDraw({ mean: 0, sd: 0.02 }, createStream(1, 0), new Float64Array(50));
    expect(never).toThrow(RangeError);
  });
});

describe('analysis normality', () => {
  it('gives the asymptotic p at once and the simulated one after its orders', () => {
    const sample = { ...sampleOf(column('normal-40')), resolution: 0.001 };
    const stage = advance('normality', { column: 'x' }, sample, []);
    expect(stage.done).toBe(false);
    const partial = (stage as { partial: NormalityResult }).partial;
    expect(partial.tests[0]).toMatchObject({ pMethod: 'asymptotic', pSimulated: null });
    expect(partial.tests[0]!.pValue).toBeCloseTo(0.10824428993, 9);
  });

  it('says that rounding explains what looks like a departure on coarse readings', async () => {
    const result = await normality(column('coarse-60'), 0.5);
    expect(result.summary.outcome).toBe('rounding');
    expect(
      normalityFinding(result)
        .map((p) => p.text)
        .join(''),
    ).toContain('Rounding alone explains the departure from a normal distribution: A² = 1.12, p = 0.0053;');
    expect(result.notes.map((n) => n.code)).toContain('rounding');
  });

  it.each([200, 60, 4])('answers at once for %d readings of which one differs by a step', async (n) => {
    const values = Float64Array.from({ length: n }, (_, i) => (i === 0 ? 6 : 5));
    const result = await normality(values, 1);
    expect(result.tests[0]!.pResolution!.pValue).toBe(1);
    expect(result.tests[0]!.tooCoarse).toBe(true);
    expect(result.summary.outcome).not.toBe('evidence');
    expect(result.notes.find(({ code }) => code === 'too-coarse')!.text).toContain(
      'The test cannot detect a departure: the resolution 1 is too coarse for this spread and',
    );
  });

  it('words a large p as no evidence against, with what n can detect', async () => {
    const result = await normality(column('normal-40'), 0.001);
    const words = normalityFinding(result)
      .map((p) => p.text)
      .join('');
    expect(words).toContain('No evidence against a normal distribution (A² = 0.605, p = 0.11). Mean 102.32\u00a0mm,');
    expect(words).not.toMatch(/is normal|accept/);
    expect(missedSentence(result)).toContain(
      'With 40 readings and significance level 0.05, the test detects a lognormal distribution',
    );
  });

  it('says so where only the rounded comparison finds a departure', () => {
    const sample = { ...sampleOf(Float64Array.of(1, 1, 2, 2, 3)), resolution: 1 };
    const test = { pValue: 0.06, pResolution: { pValue: 0.03 }, pSimulated: null, tooCoarse: false };
    const noteOf = (pResolution: number) =>
      normalityNotes(
        sample,
        sample.values,
        { ...test, pResolution: { pValue: pResolution } } as never,
        0.05,
        'no-evidence',
      ).find(({ code }) => code === 'ties')!.text;
    expect(noteOf(0.03)).toContain('4 readings are tied (resolution 1). With rounding allowed for, p = 0.030; the two');
    expect(noteOf(0.2)).toContain(
      '4 readings are tied (resolution 1). With rounding allowed for, p = 0.20; rounding does',
    );
  });

  it('says so when p is at the floor, when n is small and when the level is unusual', async () => {
    const result = await normality(column('one-far-25'), null, { alpha: 0.95 });
    const codes = result.notes.map((n) => n.code);
    expect(codes).toContain('p-at-floor');
    expect(result.notes.find((n) => n.code === 'unusual-level')!.text).toContain(
      'The significance level 0.95 is unusual; 0.05 and 0.01 are common. Did you mean 0.05?',
    );
    expect((await normality(column('small-normal'), 0.01)).notes.map((n) => n.code)).toContain('small-n');
  });

  it('misses less as n grows', async () => {
    const few = await normality(column('small-normal'), null);
    const many = await normality(column('heavy-200'), null);
    for (const k of [0, 1]) expect(many.missed[k]!.share).toBeLessThan(few.missed[k]!.share);
  });

  it('is unavailable with the reason for n = 0, 1, 2 and for equal readings', async () => {
    for (const [values, why] of [
      [[], 'no readings'],
      [[8], 'has 1 reading; the test needs at least 3'],
      [[8, 9], 'has 2 readings; the test needs at least 3'],
    ] as const) {
      const result = await normality(Float64Array.from(values), null);
      expect(result).toMatchObject({ available: false, reason: expect.stringContaining(why) });
    }
    const equal = (await normality(
      Float64Array.from({ length: 12 }, () => 8.01),
      0.01,
    )) as unknown as { reason: string };
    expect(equal.reason).toBe('All 12 readings of thickness are 8.01; the test needs readings that vary.');
  });

  it('reads evidence against the level: p equal to alpha is no evidence', () => {
    const test = { pValue: 0.05, pResolution: null } as unknown as NormalityResult['tests'][number];
    expect(outcomeOf(test, 0.05)).toBe('no-evidence');
    expect(outcomeOf({ ...test, pValue: 0.0499 }, 0.05)).toBe('evidence');
  });
});

describe('another test than A²', () => {
  const values = column('right-skew-50');
  const others = ['shapiro-wilk', 'lilliefors', 'cramer-von-mises', 'skewness', 'omnibus', 'plot-correlation'] as const;

  it.each(others)('%s, if chosen, gives the finding, with the same p as in the table', async (test) => {
    const settings = { replicates: 2_000, seed: 3 };
    const chosen = await normality(values, null, { ...settings, test });
    const beside = await normality(values, null, settings);
    const of = (result: NormalityResult) => result.tests.find((one) => one.test === test)!;
    // The same draws, whether it is the main test or one of the tallied.
    expect(of(chosen).pSimulated).toEqual(of(beside).pSimulated);
    expect(chosen.main).toBe(test);
    expect(chosen.tests.map((one) => one.statistic)).toEqual(beside.tests.map((one) => one.statistic));
    expect(
      normalityFinding(chosen)
        .map(({ text }) => text)
        .join(''),
    ).toContain(of(chosen).pValue! < 0.05 ? 'depart from' : 'no evidence against');
    expect(chosen.missed.every(({ share }) => share >= 0 && share <= 1)).toBe(true);
  });

  it('that needs more readings than there are says how many', async () => {
    const result = await normality(Float64Array.of(1, 2, 4, 8, 9), null, { test: 'skewness' });
    expect(result).toMatchObject({ available: false, reason: expect.stringContaining('8') });
    const plain = await normality(Float64Array.of(1, 2, 4, 8, 9), null, { replicates: 200 });
    const skewness = plain.tests.find(({ test }) => test === 'skewness')!;
    expect(skewness).toMatchObject({
      statistic: null,
      pValue: null,
      pMethod: null,
      pSimulated: null,
      pResolution: null,
    });
    expect([...plain.summary.against, ...plain.summary.without]).not.toContain('skewness');
  });

  it('knows the resolution as A² does', async () => {
    const coarse = await normality(column('coarse-60'), 0.5, { test: 'shapiro-wilk', replicates: 2_000 });
    const own = coarse.tests.find(({ test }) => test === 'shapiro-wilk')!;
    expect(own.pResolution!.pValue).toBeGreaterThan(own.pSimulated!.pValue);
    expect(coarse.tests.every(({ pResolution }) => pResolution !== null)).toBe(true);
  });

  it('above 5 000 readings is W′, whose p is simulated', async () => {
    const many = Float64Array.from({ length: 5_001 }, (_, i) => Math.sin(i) + Math.cos(i * 1.7));
    const result = await normality(many, null, { test: 'shapiro-wilk', replicates: 199 });
    const own = result.tests.find(({ test }) => test === 'shapiro-wilk')!;
    expect(own).toMatchObject({ pMethod: 'simulated', pAsymptotic: null });
    expect(
      normalityFinding(result)
        .map(({ text }) => text)
        .join(''),
    ).toContain('W′ = ');
  });
});

describe('a result kept before there was a choice of test', () => {
  it('is still put into the words it had', async () => {
    const now = await normality(column('right-skew-50'), null, { replicates: 999 });
    const { main: _, ...before } = { ...now, tests: now.tests.slice(0, 1) };
    expect(normalityFinding(before as NormalityResult)).toEqual(normalityFinding(now));
  });
});
