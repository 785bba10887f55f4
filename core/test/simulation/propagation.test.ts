import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analysisById, inThisThread } from '../../src/analyses/registry.js';
import type { PropagateResult } from '../../src/analyses/simulate/propagate-result.js';
import { readCorrelations } from '../../src/analyses/simulate/propagate-settings.js';
import { contributionFigures, firstOrderWords, propagateFigures } from '../../src/analyses/simulate/propagate-words.js';
import { choleskyOf } from '../../src/numeric/cholesky.js';
import { createStream } from '../../src/random/stream.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { performChunk } from '../../src/road/kernels.js';
import { drive } from '../../src/road/runner.js';
import { toWire } from '../../src/road/wire.js';
import {
  batchFor,
  correlationsOf,
  firstOrderOf,
  isStable,
  namesInFormula,
  propagatedTrials,
  summaryOf,
  toleranceOf,
  type Input,
} from '../../src/simulation/propagation.js';
import { samplesBeside } from '../../src/table/split.js';
import type { Piece, Unavailable } from '../../src/road/analysis.js';
import { column, reference } from '../reference.js';
import { sampleOf } from '../samples.js';

interface Reference {
  propagate: {
    name: string;
    inputs: { family: string; parameters: Record<string, number> }[];
    formula: string;
    mean: number;
    sd: number;
    interval95?: [number, number];
  }[];
}
const known = reference<Reference>('simulation');
const NAMES = ['a', 'b', 'c', 'd'];
const normal = (name: string, mean: number, sd: number): Input => ({
  ...{ name, from: { family: 'normal', parameters: { mean, sd } } },
});
const alone = () => 0;

async function found(request: object, sample: Sample = NO_READINGS): Promise<PropagateResult> {
  const result = (await drive(inThisThread, { id: 'propagate', request, sample })) as PropagateResult | Unavailable;
  if (!result.available) throw new Error(result.reason);
  return result;
}
const refused = async (request: object, sample: Sample = NO_READINGS) =>
  ((await drive(inThisThread, { id: 'propagate', request, sample })) as Unavailable).reason;
const said = (result: PropagateResult) =>
  (analysisById('propagate').finding as (of: unknown) => Piece[])(result)
    .map(({ text }) => text)
    .join('');
const N = (mean: number, sd: number) => ({ family: 'normal', parameters: { mean, sd } });

describe('properties of uncertainty propagation', () => {
  it.each(known.propagate)(
    '$name: mean, sd and interval of the reference',
    async ({ inputs, formula, mean, sd, interval95 }) => {
      const named = Object.fromEntries(inputs.map((input, i) => [NAMES[i]!, input]));
      const result = await found({ inputs: named, formula, trials: 400_000 });
      const error = sd / Math.sqrt(400_000);
      expect(Math.abs(result.mean! - mean)).toBeLessThan(4 * error);
      // The error of an sd is about sd/√(2B); of lopsided results somewhat more.
      expect(Math.abs(result.sd! - sd)).toBeLessThan(4 * 1.6 * error);
      // Of an end at 2.5 % about 2.7 errors of the mean; the upper end of a lopsided result has more.
      if (interval95) {
        expect(Math.abs(result.interval!.lower! - interval95[0])).toBeLessThan(4 * 3 * error);
        expect(Math.abs(result.interval!.upper! - interval95[1])).toBeLessThan(4 * 4.5 * error);
      }
    },
  );

  it('draws enough trials for two digits, at least ten batches, and reports two digits', async () => {
    const result = await found({ inputs: { a: N(10, 0.4), b: N(3, 0.2) }, formula: 'a * b', lower: 25 });
    expect(result.stable).toBe(true);
    expect(result.trials).toBeGreaterThanOrEqual(100_000);
    expect(result.tolerance).toBe(0.05);
    expect(Math.abs(result.mean! - 30)).toBeLessThan(0.05);
    expect(Math.abs(result.sd! - 2.3337523433303717)).toBeLessThan(0.05);
    expect(said(result)).toContain(
      'a * b: 30.0, standard uncertainty 2.3. 95 % coverage interval 25.5 to 34.7 (100\u202f000',
    );
    expect(firstOrderWords(result)).toContain(
      'First-order approximation (GUM): 30.0, standard uncertainty 2.3, interval 25.4 to 34.6.',
    );
    expect(propagateFigures(result).map(({ key }) => key)).toEqual(['mean', 'sd', 'interval', 'shortest', 'outside']);
  });

  it('agrees with the first order where the formula is a sum of normals, correlated or not', async () => {
    const inputs = { a: N(1, 3), b: N(2, 4) };
    const sum = await found({ inputs, formula: 'a + b' });
    expect(sum.firstOrder).toMatchObject({ estimate: 3, agrees: true });
    expect(sum.firstOrder!.sd).toBeCloseTo(5, 10);
    const together = await found({ inputs, formula: 'a - b', correlations: [{ first: 'a', second: 'b', r: 0.8 }] });
    expect(together.firstOrder!.sd).toBeCloseTo(Math.sqrt(9 + 16 - 2 * 0.8 * 12), 10);
    expect(Math.abs(together.sd! / together.firstOrder!.sd - 1)).toBeLessThan(0.02);
    expect(together.firstOrder!.agrees).toBe(true);
  });

  it('shows which input matters: the decrease in variance if it is constant', async () => {
    const result = await found({ inputs: { a: N(0, 3), b: N(0, 4), c: N(5, 1e-9) }, formula: 'a + b + c' });
    const [a, b, c] = result.contributions.map(({ share }) => share!);
    expect(a).toBeCloseTo(9 / 25, 2);
    expect(b).toBeCloseTo(16 / 25, 2);
    expect(Math.abs(c!)).toBeLessThan(1e-6);
    expect(result.contributions.map(({ sensitivity }) => sensitivity)).toEqual(
      [1, 1, 1].map((x) => expect.closeTo(x, 6)),
    );
    expect(contributionFigures(result)[1]!.texts[2]).toMatch(/^6[34](\.\d)? %$/);
  });

  it('draws inputs from columns, one or several', async () => {
    const gross = { ...sampleOf(column('normal-40')), name: 'gross' };
    const tare = { ...sampleOf(Float64Array.of(12, 12.5, 11.5)), name: 'tare' };
    const both = samplesBeside([gross, tare]);
    const inputs = { g: { column: 'gross' }, t: { column: 'tare' } };
    const result = await found({ column: 'gross', beside: ['tare'], inputs, formula: 'g - t' }, both);
    const mean = gross.values.reduce((sum, x) => sum + x / 40, 0) - 12;
    expect(Math.abs(result.mean! - mean)).toBeLessThan(0.05);
    expect(result.inputs).toBe('g from the readings of gross, t from the readings of tare');
    expect(await refused({ column: 'gross', inputs: { g: { column: 'elsewhere' } }, formula: 'g' }, gross)).toContain(
      'elsewhere, which is not among the columns',
    );
  });

  it('has no mean where an input has none, and says what is not settled', async () => {
    const result = await found({ inputs: { a: { family: 'cauchy' } }, formula: 'a + 1', trials: 20_000 });
    expect(result).toMatchObject({ mean: null, sd: null, firstOrder: null });
    expect(said(result)).toContain(
      'a + 1: median 0.9816. 95 % coverage interval −11.6 to 13.51 (20\u202f000 trials). Mean and',
    );
    const roots = await found({ inputs: { a: N(0, 1) }, formula: 'sqrt(a)', trials: 10_000 });
    expect(roots.undefined).toBeGreaterThan(4_500);
    expect(roots.notes.map(({ code }) => code)).toEqual(['undefined']);
  });

  it('gives the same bits from any number of workers, and stops at the same batch', async () => {
    const job = {
      id: 'propagate',
      request: { inputs: { a: N(10, 0.4), b: N(3, 0.2) }, formula: 'a * b' },
      sample: NO_READINGS,
    };
    const one = JSON.stringify(toWire(await drive(inThisThread, job)));
    const slow = {
      ...{ ...inThisThread, lanes: 3 },
      chunk: async (...[order, k]: Parameters<typeof inThisThread.chunk>) => {
        for (let i = 0; i < (7 * k) % 4; i++) await Promise.resolve();
        return performChunk(order, k);
      },
    };
    expect(JSON.stringify(toWire(await drive(slow, job)))).toBe(one);
  });
});

describe('what is refused of a formula', () => {
  const inputs = { a: N(1, 1) };
  it.each([
    [{ inputs, formula: 'a * b' }, /There is no input “b”/],
    [{ inputs, formula: 'mean(a)' }, /cannot use mean, median, sd or row/],
    [{ inputs, formula: 'a + row' }, /cannot use mean, median, sd or row/],
    [{ inputs, formula: '2 * pi' }, /contains no input/],
    [{ inputs, formula: 'a +' }, /cannot be read/],
    [{ inputs }, /Enter a formula/],
    [{ inputs, formula: 'a', lower: 3, upper: 1 }, /is below the lower/],
    [
      { inputs: { a: N(0, 1), b: N(0, 1) }, formula: 'a+b', correlations: [{ first: 'a', second: 'z', r: 0.5 }] },
      /needs two different inputs/,
    ],
    [
      {
        inputs: { a: N(0, 1), b: N(0, 1), c: N(0, 1) },
        formula: 'a+b+c',
        correlations: [
          { first: 'a', second: 'b', r: 0.9 },
          { first: 'b', second: 'c', r: 0.9 },
          { first: 'a', second: 'c', r: -0.9 },
        ],
      },
      /contradict each other/,
    ],
  ])('%j', async (request, reason) => expect(await refused(request)).toMatch(reason));

  it('in the request itself: parameters, names, correlations of what is not normal', () => {
    const faults = (request: object) =>
      analysisById('propagate')
        .request.safeParse(request)
        .error?.issues.map(({ message }) => message)
        .join(' ');
    expect(faults({ inputs: { a: { family: 'normal', parameters: [1, -1] } }, formula: 'a' })).toContain(
      'a: The standard deviation is a number above 0, not -1.',
    );
    expect(faults({ inputs: { 'a b': N(0, 1) }, formula: 'a' })).toContain('letters and digits');
    expect(
      faults({ inputs: { a: { family: 'gamma' } }, formula: 'a', correlations: [{ first: 'a', second: 'b', r: 1 }] }),
    ).toContain('A correlation must lie between −1 and 1, exclusive.');
    expect(
      faults({
        inputs: { a: { family: 'gamma' }, b: N(0, 1) },
        formula: 'a',
        correlations: [{ first: 'a', second: 'b', r: 0.1 }],
      }),
    ).toContain('Correlated inputs must be normal; a is not.');
    expect(faults({ inputs: {}, formula: 'a', trials: 999 })).toContain('from 1 000');
  });

  it('correlations as they are typed', () => {
    expect(readCorrelations('a b 0.5; a c −0.2')).toEqual({
      correlations: [
        { first: 'a', second: 'b', r: 0.5 },
        { first: 'a', second: 'c', r: -0.2 },
      ],
    });
    for (const odd of ['a b', 'a b 1', 'a a 0.5', 'a b c 0.5', 'a b x'])
      expect(readCorrelations(odd)).toHaveProperty('problem');
    expect(readCorrelations('  ')).toEqual({ correlations: [] });
  });
});

describe('the pieces of propagation', () => {
  it('name what a formula takes', () => {
    expect(namesInFormula('(gross - tare) / density * pi + sqrt(gross) + max(a_1, 2e3)')).toEqual([
      'gross',
      'tare',
      'density',
      'a_1',
    ]);
  });

  it('first-order sensitivities are the derivatives', () => {
    const inputs = [normal('x', 2, 0.1), normal('y', 3, 0.2)];
    const { estimate, sensitivities, sd } = firstOrderOf({ inputs, formula: 'exp(x) * y + y^2' }, alone)!;
    expect(estimate).toBeCloseTo(Math.exp(2) * 3 + 9, 10);
    expect(sensitivities[0]).toBeCloseTo(Math.exp(2) * 3, 6);
    expect(sensitivities[1]).toBeCloseTo(Math.exp(2) + 6, 9);
    expect(sd).toBeCloseTo(Math.hypot(Math.exp(2) * 0.3, (Math.exp(2) + 6) * 0.2), 7);
    expect(
      firstOrderOf(
        { inputs: [{ name: 'x', from: { family: 'cauchy', parameters: { location: 0, scale: 1 } } }], formula: 'x' },
        alone,
      ),
    ).toBeNull();
  });

  it('without a tangent that can be held there is no first order', () => {
    const inputs = [normal('x', 0.65, 0.1)];
    expect(firstOrderOf({ inputs, formula: 'exp(1000 * x)' }, alone)).toBeNull();
  });

  it('correlations has the correlation that is asked', () => {
    const inputs = [normal('a', 5, 2), normal('b', -1, 0.5), normal('c', 0, 1)];
    const r = (i: number, j: number) => ([0, 2].includes(i) && [0, 2].includes(j) ? -0.6 : 0);
    const lower = correlationsOf(2, (i, j) => r([0, 2][i]!, [0, 2][j]!))!;
    const of = (formula: string) =>
      propagatedTrials(
        { inputs, formula, correlated: { places: [0, 2], lower }, fixed: null },
        createStream(1, 0),
        40_000,
      );
    const [a, c] = [of('a'), of('c')];
    const product = a.reduce((sum, x, i) => sum + ((x - 5) / 2) * c[i]!, 0) / 40_000;
    expect(Math.abs(product + 0.6)).toBeLessThan(0.025);
    const fixed = propagatedTrials(
      { inputs, formula: 'a + b', correlated: null, fixed: { place: 0, value: 7 } },
      createStream(1, 0),
      1_000,
    );
    const free = propagatedTrials({ inputs, formula: 'b', correlated: null, fixed: null }, createStream(1, 0), 1_000);
    fixed.forEach((x, i) => expect(x).toBeCloseTo(7 + free[i]!, 12));
  });

  it('a triangle times itself turned over is the matrix again (law)', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 9, maxLength: 9 }), (some) => {
        const n = 3;
        const matrix = new Float64Array(n * n);
        for (let i = 0; i < n; i++)
          for (let j = 0; j < n; j++) {
            for (let k = 0; k < n; k++) matrix[i * n + j]! += some[i * n + k]! * some[j * n + k]!;
            if (i === j) matrix[i * n + j]! += 0.01;
          }
        const l = choleskyOf(matrix, n)!;
        for (let i = 0; i < n; i++)
          for (let j = 0; j < n; j++) {
            let sum = 0;
            for (let k = 0; k < n; k++) sum += l[i * n + k]! * l[j * n + k]!;
            expect(sum).toBeCloseTo(matrix[i * n + j]!, 12);
          }
      }),
    );
    expect(choleskyOf(Float64Array.of(1, 2, 2, 1), 2)).toBeNull();
  });

  it('both intervals hold what they say; the shortest is no longer', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 10, noNaN: true }), { minLength: 40, maxLength: 300 }), (some) => {
        const sorted = Float64Array.from(some, (x) => x * x).sort();
        const { interval, shortest, n } = summaryOf(sorted, 0.9);
        const held = ([low, high]: [number, number]) => sorted.filter((x) => x >= low && x <= high).length;
        expect(held(interval)).toBeGreaterThanOrEqual(Math.round(0.9 * n));
        expect(held(shortest)).toBeGreaterThanOrEqual(Math.round(0.9 * n));
        expect(shortest[1] - shortest[0]).toBeLessThanOrEqual(interval[1] - interval[0] + 1e-12);
      }),
    );
  });

  it('a tolerance is half a unit of the second digit (JCGM 101, 7.9.2)', () => {
    expect([2.33, 0.035, 12_345, 9.96, 1].map(toleranceOf)).toEqual([0.05, 0.0005, 500, 0.5, 0.05]);
    const batch = (mean: number) => ({
      n: 1,
      mean,
      sd: 1,
      interval: [-2, 2] as [number, number],
      shortest: [-2, 2] as [number, number],
    });
    expect(
      isStable(
        Array.from({ length: 9 }, () => batch(0)),
        1,
      ),
    ).toBe(false);
    expect(
      isStable(
        Array.from({ length: 10 }, () => batch(0)),
        1,
      ),
    ).toBe(true);
    expect(
      isStable(
        Array.from({ length: 10 }, (_, i) => batch(i % 2)),
        1,
      ),
    ).toBe(false);
  });
});

describe('results without a mean, and inputs that are correlated', () => {
  const propagated = (request: object) => found(request);
  const standard = { family: 'normal', parameters: { mean: 0, sd: 1 } };
  const text = (result: PropagateResult) => said(result);

  it('a ratio of standard normals is reported by median and interval, with the reason', async () => {
    const result = await propagated({ formula: 'a / b', inputs: { a: standard, b: standard }, trials: 100_000 });
    expect(result).toMatchObject({ mean: null, sd: null });
    // A Cauchy distribution: its median is 0, its 97.5 % point 12.7.
    expect(Math.abs(result.median!)).toBeLessThan(0.03);
    expect(result.interval!.upper).toBeGreaterThan(11.5);
    expect(result.interval!.upper).toBeLessThan(14);
    expect(text(result)).toMatch(/^a \/ b: median .*, because the SD does not settle: batches of 10.000 trials give/u);
  });

  it('keep their sd where the tails are heavy but the sd settles: t on 5 degrees of freedom', async () => {
    const heavy = { family: 'student-t', parameters: { df: 5, location: 0, scale: 1 } };
    const result = await propagated({ formula: 'a + b', inputs: { a: heavy, b: standard }, trials: 200_000 });
    expect(result.sd!).toBeCloseTo(Math.sqrt(5 / 3 + 1), 1);
  });

  it('are always 0 where a quantity is taken from itself, and hold extreme scales', async () => {
    const zero = await propagated({ formula: 'b - b', inputs: { b: standard }, trials: 20_000 });
    expect(text(zero)).toBe('b - b is constant: 0.');
    const large = { family: 'normal', parameters: { mean: 5e100, sd: 1e100 } };
    const big = await propagated({ formula: 'c * 2 * 10^100', inputs: { c: large }, trials: 50_000 });
    expect(big.mean! / 1e201).toBeCloseTo(1, 1);
    expect(big.sd! / 2e200).toBeCloseTo(1, 1);
  });

  it('give first-order terms and covariances, and no percentages of the variance', async () => {
    const correlations = [{ first: 'a', second: 'b', r: 0.9 }];
    const result = await propagated({
      formula: 'a - b',
      inputs: { a: standard, b: standard },
      correlations,
      trials: 20_000,
    });
    expect(result.contributions.map(({ share }) => share)).toEqual([null, null]);
    expect(result.contributions.map(({ variance }) => variance!.toFixed(6))).toEqual(['1.000000', '1.000000']);
    expect(result.covariances[0]!.variance).toBeCloseTo(-1.8, 8);
    const terms = [...result.contributions.map(({ variance }) => variance!), -1.8];
    expect(terms.reduce((a, b) => a + b, 0)).toBeCloseTo(result.firstOrder!.sd ** 2, 8);
    expect(contributionFigures(result).map(({ name }) => name)).toEqual(['a', 'b', 'a with b']);
  });

  it('are drawn in batches of 100/(1 − p), at least 10 000', () => {
    expect([0.95, 0.99, 0.999].map(batchFor)).toEqual([10_000, 10_000, 100_000]);
  });
});
