import { distributionAnalysis, QUESTIONS, type DistributionResult } from '@verdict/core/analyses';
import { distribution, familyByName, FAMILIES } from '@verdict/core/distributions';
import { toWire } from '@verdict/core/road';
import fc from 'fast-check';
import { computed, ref } from 'vue';
import { describe, expect, it } from 'vitest';
import { heightAt, stretchesOf, distributionChart } from '../src/charts/distribution-chart.js';
import { barsOf, isShaded, pictureOf } from '../src/charts/distribution-picture.js';
import { shareAt, windowFault } from '../src/stages/distributions/dragging.js';
import { snapped } from '../src/charts/snapped.js';
import {
  draftFrom,
  newDraft,
  overRequestFrom,
  queryOf,
  requestFrom,
  shareCaution,
  toldByMoments,
  typedNumber,
  usualTexts,
  type Asked,
  type Draft,
} from '../src/stages/distributions/question.js';
import { useDistribution } from '../src/stages/distributions/use-distribution.js';

const ASKED = QUESTIONS.filter((question): question is Asked => question !== 'at');
const draftOf = (patch: Partial<Draft>): Draft => ({ ...newDraft(), ...patch });
const page = (patch: Partial<Draft>) => {
  const draft = ref(draftOf(patch));
  return {
    draft,
    ...useDistribution(
      draft,
      computed(() => null),
    ),
  };
};

describe('the question in the address', () => {
  it('comes back as it was asked, for every family and question', () => {
    for (const { family } of FAMILIES) {
      for (const asked of ASKED) {
        const draft = draftOf({
          family,
          asked,
          parameters: usualTexts(familyByName(family)),
          a: '1,5',
          b: '2.5',
          share: '12',
        });
        const back = draftFrom(queryOf(draft));
        expect(queryOf(back)).toEqual(queryOf(draft));
        expect(requestFrom(back)).toEqual(requestFrom(draft));
      }
    }
  });

  it('keeps what cannot be answered yet as it was typed', () => {
    const draft = draftOf({ parameters: { mean: '8.02', sd: 'about 1' } });
    expect(draftFrom(queryOf(draft)).parameters.sd).toBe('about 1');
  });

  it('passes over families and questions there are none of', () => {
    const draft = draftFrom({ family: 'gauss', ask: 'maybe', view: 'round', over: 'none' });
    expect([draft.family, draft.asked, draft.view, draft.over]).toEqual(['normal', 'between', 'density', '']);
  });

  it('holds the view, its ends, the second family and the column', () => {
    const over = { over: 'gamma', overParameters: { shape: '4', scale: '2', threshold: '0' } };
    const draft = draftOf({ view: 'cumulative', from: '7', to: '9', ...over, column: 'c-1', ends: 'excluded' });
    expect(draftFrom(queryOf(draft))).toEqual(draft);
  });

  it('is told by mean and sd only where that is one to one', () => {
    const told = FAMILIES.filter(toldByMoments).map(({ family }) => family);
    expect(told).toContain('gamma');
    expect(told).toContain('normal');
    expect(told).not.toContain('cauchy');
    expect(told).not.toContain('poisson');
    const draft = draftOf({
      family: 'gamma',
      by: 'variance',
      mean: '5',
      spread: '4',
      parameters: { shape: '', scale: '', threshold: '1' },
    });
    const found = requestFrom(draftFrom(queryOf(draft)));
    expect('request' in found && found.request.moments).toEqual({ mean: 5, variance: 4, given: { threshold: 1 } });
  });
});

describe('what is typed', () => {
  it.each([
    ['8,5', 8.5],
    ['\u22123.2', -3.2],
    [' 1 000 ', 1000],
    ['1e-3', 0.001],
    ['', NaN],
    ['eight', NaN],
    ['1,2,3', NaN],
  ])('%s is %d', (text, value) => expect(typedNumber(text)).toBe(value));

  it.each([
    [{ parameters: { mean: '0', sd: '0' } }, 'p.sd', 'above 0, not 0'],
    [{ parameters: { mean: '0', sd: '-1' } }, 'p.sd', 'above 0, not -1'],
    [{ parameters: { mean: '', sd: '1' } }, 'p.mean', 'The mean is a number'],
    [{ a: '2', b: '2' }, 'b', 'lower limit lies below'],
    [{ asked: 'below', b: 'x' }, 'b', 'A limit is a number'],
    [{ asked: 'lowerShare', share: '0' }, 'share', '25 means a quarter'],
    [{ asked: 'upperShare', share: '100' }, 'share', 'above 0 and below 100'],
    [{ asked: 'centralShare', share: '120' }, 'share', 'below 100'],
    [{ asked: 'lowerShare', share: '-5' }, 'share', 'above 0'],
    [{ asked: 'recordedAs', value: '8', step: '0' }, 'step', 'resolution is a number above 0'],
    [{ asked: 'withinSd', times: '-2' }, 'times', 'above 0'],
    [{ family: 'binomial', parameters: { trials: '10', probability: '1.2' } }, 'p.probability', 'between 0 and 1'],
    [
      {
        family: 'beta',
        by: 'sd',
        mean: '0.5',
        spread: '3',
        parameters: { shape1: '1', shape2: '1', lower: '0', upper: '1' },
      },
      'spread',
      'as spread out',
    ],
  ] as [Partial<Draft>, string, string][])('%o is refused at its field: %s', (patch, field, words) => {
    const found = requestFrom(draftOf(patch));
    expect('faults' in found && found.faults[field]).toContain(words);
  });

  it('0.25 in a field of percentages is pointed out, 25 is not', () => {
    expect(shareCaution(draftOf({ asked: 'lowerShare', share: '0.25' }))).toContain('For 25 % type 25');
    expect(shareCaution(draftOf({ asked: 'lowerShare', share: '25' }))).toBe('');
    expect(shareCaution(draftOf({ asked: 'between', share: '0.25' }))).toBe('');
  });

  it('faults of the second family are said at its own fields', () => {
    const found = overRequestFrom(draftOf({ over: 'gamma', overParameters: { shape: '-1', scale: '1' } }));
    expect(found && 'faults' in found && Object.keys(found.faults)).toEqual(['o.shape']);
    expect(overRequestFrom(newDraft())).toBeNull();
    expect(windowFault({ from: '9', to: '7' })).toContain('begins below where it ends');
    expect(windowFault({ from: 'left', to: '' })).toContain('is no number');
    expect(windowFault({ from: '7', to: '' })).toBe('');
  });
});

describe('dragging', () => {
  it('writes limits in step with the picture, and never past one another', () => {
    const { draft, dragged, result } = page({ parameters: { mean: '8.02', sd: '0.11' }, a: '7.8', b: '8.2' });
    const before = result.value!.probability;
    const patch = dragged('upper', 8.3004);
    expect(patch).toEqual({ b: '8.3' });
    draft.value = { ...draft.value, ...patch };
    expect(result.value!.probability).toBeGreaterThan(before);
    expect(dragged('upper', 7.7)).toEqual({});
    expect(dragged('lower', 8.31)).toEqual({});
  });

  it('moves the share, the value or the number of sd where that is what was asked with', () => {
    const share = page({ asked: 'upperShare', share: '10' });
    expect(share.dragged('lower', 0)).toEqual({ share: '50' });
    const recorded = page({ asked: 'recordedAs', value: '0', step: '0.5' });
    expect(recorded.dragged('lower', 0.77)).toEqual({ value: '1' });
    const within = page({ asked: 'withinSd', times: '1', parameters: { mean: '10', sd: '2' } });
    expect(within.dragged('upper', 16)).toEqual({ times: '3' });
    const counted = page({ family: 'poisson', parameters: { mean: '3' }, asked: 'below', b: '2' });
    expect(counted.dragged('upper', 4.4)).toEqual({ b: '4' });
  });

  it('a dragged share stands for its limit', () => {
    const d = distribution(familyByName('gamma'), { shape: 3, scale: 2 });
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.98, noNaN: true }), (p) => {
        const share = Number(shareAt(d, d.quantile(p), 'lowerShare')) / 100;
        expect(share).toBeCloseTo(p, 3);
        expect(Number(shareAt(d, d.quantile(p), 'upperShare')) / 100).toBeCloseTo(1 - p, 3);
      }),
    );
    expect(snapped(8.30041, { from: 7.6, to: 8.4 }, null)).toBe('8.3');
    expect(snapped(3.4, { from: 0, to: 12 }, 1)).toBe('3');
  });

  it('a field being mended leaves the last picture standing', () => {
    const { draft, picture, result, faults } = page({});
    const last = picture.value;
    draft.value = { ...draft.value, parameters: { mean: '0', sd: '' } };
    expect(result.value).toBeNull();
    expect(faults.value['p.sd']).toContain('above 0');
    expect(picture.value).toBe(last);
  });
});

describe('the picture', () => {
  const resultOf = (patch: Partial<Draft>): DistributionResult => page(patch).result.value!;
  const view = { view: 'density', from: NaN, to: NaN } as const;

  it('shades what is asked, within its window', () => {
    const between = pictureOf(view, resultOf({ a: '-1', b: '1' }), null, null);
    expect(stretchesOf(between)).toEqual([{ from: -1, to: 1 }]);
    const outside = pictureOf(view, resultOf({ asked: 'outside', a: '-1', b: '1' }), null, null);
    expect(stretchesOf(outside)).toEqual([
      { from: outside.window.from, to: -1 },
      { from: 1, to: outside.window.to },
    ]);
    const far = pictureOf(view, resultOf({ asked: 'above', a: '50' }), null, null);
    expect(stretchesOf(far)).toEqual([]);
  });

  it('fills the bars whose numbers count, and adds up to the answer', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Asked>('below', 'above', 'between', 'outside'),
        fc.constantFrom<Draft['ends']>('', 'included', 'excluded'),
        fc.integer({ min: 0, max: 8 }),
        (asked, ends, k) => {
          const result = resultOf({
            family: 'binomial',
            parameters: { trials: '12', probability: '0.3' },
            asked,
            ends,
            a: String(k),
            b: String(k + 3),
          });
          const picture = pictureOf({ ...view, from: -0.6, to: 12.6 }, result, null, null);
          let sum = 0;
          picture.curve.x.forEach((x, i) => (sum += isShaded(picture.region, x) ? picture.curve.y[i]! : 0));
          expect(sum).toBeCloseTo(result.probability, 12);
        },
      ),
    );
  });

  it('lays readings under the curve as densities, or as shares for counts, and holds them all', () => {
    const bars = barsOf({ edges: [0, 2, 4], counts: [1, 3] }, false);
    expect(bars.reduce((area, { from, to, height }) => area + (to - from) * height, 0)).toBe(1);
    expect(barsOf({ edges: [-0.5, 0.5, 1.5], counts: [1, 3] }, true).map(({ height }) => height)).toEqual([0.25, 0.75]);
    const picture = pictureOf(view, resultOf({}), null, { edges: [8, 10, 20], counts: [1, 3] });
    expect(picture.window.to).toBeGreaterThanOrEqual(20);
    const cumulative = pictureOf({ ...view, view: 'cumulative' }, resultOf({}), null, {
      edges: [8, 10, 20],
      counts: [1, 3],
    });
    expect(cumulative.bars.map(({ height }) => height)).toEqual([0.25, 1]);
  });

  it('has strips of shares under the cumulative curve that are as high as the answer', () => {
    for (const asked of ['below', 'above', 'between', 'outside'] as const) {
      for (const family of ['normal', 'poisson']) {
        const result = resultOf({ family, parameters: usualTexts(familyByName(family)), asked, a: '0', b: '2' });
        const { strips } = pictureOf({ ...view, view: 'cumulative' }, result, null, null);
        expect(strips.reduce((sum, { from, to }) => sum + to - from, 0)).toBeCloseTo(result.probability, 12);
      }
    }
  });

  it('keeps ends that were set, both curves in view, and heights between points', () => {
    const set = pictureOf({ ...view, from: -9, to: 9 }, resultOf({}), null, null);
    expect(set.window).toEqual({ from: -9, to: 9 });
    const two = pictureOf(view, resultOf({}), resultOf({ parameters: { mean: '30', sd: '1' } }), null);
    expect(two.window.to).toBeGreaterThan(31);
    expect(heightAt({ x: [0, 1, 2], y: [0, 10, 0], bars: false, stepped: false }, 0.5)).toBe(5);
    const colours = {
      ink: '',
      soft: '',
      card: '',
      gridLine: '',
      green: 'g',
      tint: '',
      ochre: 'o',
      ochreText: '',
      series: [],
    };
    const config = distributionChart(two, colours, 'thickness, mm');
    expect(config.data.datasets.map(({ borderColor }) => borderColor)).toEqual(['g', 'o']);
    expect(config.options!.scales!.x).toMatchObject({ min: two.window.from, max: two.window.to });
  });

  it('has ends and finite heights whatever the parameters, or the answer says why there is none', () => {
    const size = fc.integer({ min: -160, max: 160 }).map((exponent) => `1e${exponent}`);
    fc.assert(
      fc.property(
        fc.constantFrom(...FAMILIES),
        fc.constantFrom(...ASKED),
        size,
        size,
        size,
        (family, asked, a, b, c) => {
          const texts = [a, b, c, '0'];
          const parameters = Object.fromEntries(family.parameters.map(({ name }, i) => [name, texts[i]!]));
          const { found, result, picture } = page({ family: family.family, asked, parameters, a: '1', b: '2' });
          if (!found.value) return;
          if (!result.value) return void expect(found.value).toMatchObject({ available: false });
          toWire(result.value);
          const { window, curve, top } = picture.value!;
          expect(Number.isFinite(window.to - window.from) && window.from < window.to).toBe(true);
          expect(Number.isFinite(top) && curve.y.every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 1500 },
    );
  });

  it('of counts has no line, and of the cumulative curve steps', () => {
    const poisson = { family: 'poisson', parameters: { mean: '3' } };
    expect(pictureOf(view, resultOf(poisson), null, null).curve.bars).toBe(true);
    expect(pictureOf({ ...view, view: 'cumulative' }, resultOf(poisson), null, null).curve.stepped).toBe(true);
  });

  it('is answered by the same analysis as everywhere', () => {
    expect(resultOf({ a: '-1', b: '1' }).probability).toBeCloseTo(0.682689492137086, 14);
    expect(distributionAnalysis.needsReadings).toBe(false);
  });
});
