import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  barsOf,
  distributionPicture,
  heightAt,
  stretchesOf,
  stripsOf,
  type DistributionPicture,
  type DistributionView,
} from '../../src/analyses/distributions/distribution-picture.js';
import { QUESTIONS } from '../../src/analyses/distributions/distribution-request.js';
import type { DistributionResult } from '../../src/analyses/distributions/distribution-result.js';
import { distributionAnalysis } from '../../src/analyses/distributions/distribution.js';
import { advance } from '../../src/analyses/registry.js';
import { shareAt } from '../../src/distributions/region.js';
import { distribution, FAMILIES, familyByName } from '../../src/distributions/registry.js';
import { NO_READINGS } from '../../src/readings/sample.js';

function found(request: object): unknown {
  const settings = distributionAnalysis.resolve(distributionAnalysis.request.parse(request), NO_READINGS);
  return (advance('distribution', settings, NO_READINGS, []) as { result: unknown }).result;
}
const ask = (request: object) => found(request) as DistributionResult;
const VIEW: DistributionView = { view: 'density', from: NaN, to: NaN };
const CUMULATIVE: DistributionView = { ...VIEW, view: 'cumulative' };
const draw = (request: object, view = VIEW): DistributionPicture => distributionPicture(view, ask(request), null, null);

/** The area of a closed shape, by the trapezium rule around it (Meister 1769). */
const areaOf = ({ x, y }: { x: number[]; y: number[] }) =>
  Math.abs(x.reduce((sum, at, i) => sum + at * (y[(i + 1) % y.length]! - y.at(i - 1)!), 0)) / 2;
const total = (shapes: { x: number[]; y: number[] }[]) => shapes.reduce((sum, shape) => sum + areaOf(shape), 0);

describe('the picture of a distribution', () => {
  it('shades what is asked: the area under a density is the answer, within the window', () => {
    for (const request of [{ between: [-1, 1] }, { outside: [-1, 0.5] }, { below: 0.3 }, { above: -0.2 }]) {
      expect(total(draw(request).areas)).toBeCloseTo(ask(request).probability, 3);
    }
    const { areas, window } = draw({ above: 50 });
    expect([areas, window.to < 50]).toEqual([[], true]);
  });

  it('fills the bars whose numbers count, and they add up to the answer', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('below', 'above', 'between', 'outside'),
        fc.constantFrom(undefined, 'included', 'excluded'),
        fc.integer({ min: 0, max: 8 }),
        (question, ends, k) => {
          const limits = question === 'below' || question === 'above' ? k : [k, k + 3];
          const request = {
            family: 'binomial',
            parameters: { trials: 12, probability: 0.3 },
            [question]: limits,
            ends,
          };
          const { curve, shaded } = draw(request, { ...VIEW, from: -0.6, to: 12.6 });
          const sum = curve.y.reduce((all, p, i) => all + (shaded[i] ? p : 0), 0);
          expect(sum).toBeCloseTo(ask(request).probability, 12);
        },
      ),
    );
  });

  it('has strips of shares under the cumulative distribution that are as high as the answer', () => {
    for (const family of ['normal', 'poisson']) {
      for (const request of [{ below: 2 }, { above: 0 }, { between: [0, 2] }, { outside: [0, 2] }]) {
        const result = ask({ family, ...request });
        const strips = stripsOf(result, draw({ family, ...request }).window);
        expect(strips.reduce((sum, { from, to }) => sum + to - from, 0)).toBeCloseTo(result.probability, 12);
      }
    }
  });

  it('shows all readings under the curve as densities, or as proportions for counts', () => {
    const bars = barsOf({ edges: [0, 2, 4], counts: [1, 3] }, false);
    expect(bars.reduce((area, { from, to, height }) => area + (to - from) * height, 0)).toBe(1);
    expect(barsOf({ edges: [-0.5, 0.5, 1.5], counts: [1, 3] }, true).map(({ height }) => height)).toEqual([0.25, 0.75]);
    const values = Float64Array.from([8, 9, 9, 20]);
    const readings = { values, resolution: 1 };
    const picture = distributionPicture(VIEW, ask({ below: 0 }), null, readings);
    expect(picture.window.to).toBeGreaterThanOrEqual(20);
    expect(picture.bars.reduce((area, { from, to, height }) => area + (to - from) * height, 0)).toBeCloseTo(1, 12);
    const { bars: steps } = distributionPicture(CUMULATIVE, ask({ below: 0 }), null, readings);
    expect(steps.at(-1)!.height).toBeCloseTo(1, 12);
    expect(steps.every(({ height }, i) => i === 0 || height >= steps[i - 1]!.height)).toBe(true);
    const counted = distributionPicture(VIEW, ask({ family: 'poisson', below: 2 }), null, {
      values: Float64Array.from([0, 1, 1, 3]),
      resolution: 1,
    });
    expect(counted.bars.map(({ height }) => height)).toEqual([0.25, 0.5, 0, 0.25]);
  });

  it('keeps ends that were set, both curves in view, and heights between points', () => {
    expect(draw({ below: 0 }, { ...VIEW, from: -9, to: 9 }).window).toEqual({ from: -9, to: 9 });
    const two = distributionPicture(VIEW, ask({ below: 0 }), ask({ parameters: { mean: 30, sd: 1 }, below: 0 }), null);
    expect(two.window.to).toBeGreaterThan(31);
    expect(heightAt({ x: [0, 1, 2], y: [0, 10, 0] }, 0.5)).toBe(5);
    const window = { from: -3, to: 3 };
    expect(stretchesOf({ lower: -1, upper: 1, outside: true }, window)).toEqual([
      { from: -3, to: -1 },
      { from: 1, to: 3 },
    ]);
    expect(stretchesOf({ lower: null, upper: 1, outside: false }, window)).toEqual([{ from: -3, to: 1 }]);
  });

  it('of counts has no line, of the cumulative distribution steps; the answer is above its region', () => {
    expect(draw({ family: 'poisson', below: 2 }).curve.bars).toBe(true);
    expect(draw({ family: 'poisson', below: 2 }, CUMULATIVE).curve.stepped).toBe(true);
    expect(draw({ between: [-1, 1] }).answer).toEqual({ words: '68.27\u00a0%', at: 0 });
  });

  it('has ends and finite heights whatever the parameters', () => {
    const size = fc.integer({ min: -160, max: 160 }).map((exponent) => 10 ** exponent);
    const limits: Record<string, unknown> = { between: [1, 2], outside: [1, 2], withinSd: 1, recordedAs: 1, at: [1] };
    fc.assert(
      fc.property(
        fc.constantFrom(...FAMILIES),
        fc.constantFrom(...QUESTIONS),
        size,
        size,
        size,
        (family, question, ...of) => {
          const parameters = Object.fromEntries(family.parameters.map(({ name }, i) => [name, of[i] ?? 0]));
          const asked = limits[question] ?? (question.endsWith('Share') ? 0.1 : 1);
          const request = { family: family.family, parameters, [question]: asked, resolution: 0.1 };
          if (!distributionAnalysis.request.safeParse(request).success) return;
          const result = found(request) as DistributionResult;
          if (!result.available) return;
          const { window, curve, top } = distributionPicture(VIEW, result, null, null);
          expect(Number.isFinite(window.to - window.from) && window.from < window.to).toBe(true);
          expect(Number.isFinite(top) && curve.y.every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 1500 },
    );
  });
});

describe('a share from its limit', () => {
  it('undoes the quantile, from below, from above and from the middle', () => {
    const d = distribution(familyByName('gamma'), { shape: 3, scale: 2 });
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.98, noNaN: true }), (p) => {
        expect(shareAt(d, d.quantile(p), 'lower')).toBeCloseTo(p, 12);
        expect(shareAt(d, d.quantile(p), 'upper')).toBeCloseTo(1 - p, 12);
        expect(shareAt(d, d.quantile((1 - p) / 2), 'central')).toBeCloseTo(p, 11);
      }),
    );
  });
});
