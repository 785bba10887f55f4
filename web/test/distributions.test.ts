import { QUESTIONS } from '@verdict/core/analyses';
import { familyByName, FAMILIES } from '@verdict/core/distributions';
import { computed, ref } from 'vue';
import { describe, expect, it } from 'vitest';
import { typedNumber } from '../src/components/fields/typed-number.js';
import { distributionPanels } from '../src/charts/pictures/distribution.js';
import { snapped } from '../src/charts/snapped.js';
import {
  draftFrom,
  newDraft,
  overRequestFrom,
  queryOf,
  requestFrom,
  shareCaution,
  givenByMoments,
  usualTexts,
  windowFault,
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

  it('is defined by mean and SD only if these determine it', () => {
    const told = FAMILIES.filter(givenByMoments).map(({ family }) => family);
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

describe('typed counts', () => {
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
    [{ a: '2', b: '2' }, 'b', 'The lower limit must be below the upper limit.'],
    [{ asked: 'below', b: 'x' }, 'b', 'A limit must be a number.'],
    [
      { asked: 'lowerShare', share: '0' },
      'share',
      'The proportion must be a percentage above 0 and below 100; 25 means 25 %.',
    ],
    [{ asked: 'upperShare', share: '100' }, 'share', 'above 0 and below 100'],
    [{ asked: 'centralShare', share: '120' }, 'share', 'below 100'],
    [{ asked: 'lowerShare', share: '-5' }, 'share', 'above 0'],
    [{ asked: 'recordedAs', value: '8', step: '0' }, 'step', 'The resolution must be a number above 0.'],
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
      'No beta distribution has a standard deviation this large between these limits.',
    ],
  ] as [Partial<Draft>, string, string][])('%o is refused at its field: %s', (patch, field, words) => {
    const found = requestFrom(draftOf(patch));
    expect('faults' in found && found.faults[field]).toContain(words);
  });

  it('0.25 in a field of percentages is pointed out, 25 is not', () => {
    expect(shareCaution(draftOf({ asked: 'lowerShare', share: '0.25' }))).toContain(
      '0.25 is read as 0.25 %, which is less than 1 %. For 25 % enter 25.',
    );
    expect(shareCaution(draftOf({ asked: 'lowerShare', share: '25' }))).toBe('');
    expect(shareCaution(draftOf({ asked: 'between', share: '0.25' }))).toBe('');
  });

  it('faults of the second family are said at its own fields', () => {
    const found = overRequestFrom(draftOf({ over: 'gamma', overParameters: { shape: '-1', scale: '1' } }));
    expect(found && 'faults' in found && Object.keys(found.faults)).toEqual(['o.shape']);
    expect(overRequestFrom(newDraft())).toBeNull();
    expect(windowFault({ from: '9', to: '7' })).toContain(
      'The picture must begin below its end; it keeps its automatic range.',
    );
    expect(windowFault({ from: 'left', to: '' })).toContain(
      '“left” is not a number; the picture keeps its automatic range.',
    );
    expect(windowFault({ from: '7', to: '' })).toBe('');
  });
});

describe('dragging', () => {
  it('writes limits in step with the picture, and never past one another', () => {
    const { draft, drag, result } = page({ parameters: { mean: '8.02', sd: '0.11' }, a: '7.8', b: '8.2' });
    const before = result.value!.probability;
    const patch = drag('upper', 8.3004);
    expect(patch).toEqual({ b: '8.3' });
    draft.value = { ...draft.value, ...patch };
    expect(result.value!.probability).toBeGreaterThan(before);
    expect(drag('upper', 7.7)).toEqual({});
    expect(drag('lower', 8.31)).toEqual({});
  });

  it('moves the share, the value or the number of sd where that is what was asked with', () => {
    const share = page({ asked: 'upperShare', share: '10' });
    expect(share.drag('lower', 0)).toEqual({ share: '50' });
    const recorded = page({ asked: 'recordedAs', value: '0', step: '0.5' });
    expect(recorded.drag('lower', 0.77)).toEqual({ value: '1' });
    const within = page({ asked: 'withinSd', times: '1', parameters: { mean: '10', sd: '2' } });
    expect(within.drag('upper', 16)).toEqual({ times: '3' });
    const counted = page({ family: 'poisson', parameters: { mean: '3' }, asked: 'below', b: '2' });
    expect(counted.drag('upper', 4.4)).toEqual({ b: '4' });
  });

  it('snaps to what would be typed', () => {
    expect(snapped(8.30041, { from: 7.6, to: 8.4 }, null)).toBe('8.3');
    expect(snapped(3.4, { from: 0, to: 12 }, 1)).toBe('3');
  });

  it('a field being mended leaves the last picture standing', () => {
    const { draft, drawn, result, faults } = page({});
    const last = drawn.value;
    draft.value = { ...draft.value, parameters: { mean: '0', sd: '' } };
    expect(result.value).toBeNull();
    expect(faults.value['p.sd']).toContain('above 0');
    expect(drawn.value).toBe(last);
  });
});

describe('the answer on the page', () => {
  it('is that of the same analysis as everywhere, and says in words what the picture shows', () => {
    const { result, words, drawn } = page({ a: '-1', b: '1' });
    expect(result.value!.probability).toBeCloseTo(0.682689492137086, 14);
    expect(words.value).toBe(
      'Density of a normal distribution with mean 0 and standard deviation 1; shaded at \u22121 and 1: 68.27\u00a0%.',
    );
    const panels = distributionPanels(drawn.value!.picture, drawn.value!.result, null, 'value');
    expect(panels.caption).toEqual({ words: '68.27\u00a0%', at: 0 });
  });

  it('has its limits at the edge where they lie beyond the picture, and a legend where there are two things', () => {
    const { drawn } = page({ a: '-50', b: '1', over: 'logistic', overParameters: { location: '0', scale: '1' } });
    const { picture, result, over } = drawn.value!;
    const panels = distributionPanels(picture, result, over, 'value');
    const rules = panels.panels[0]!.marks.filter(({ kind }) => kind === 'rule');
    expect(rules).toMatchObject([
      { at: -50, stays: true },
      { at: 1, stays: true },
    ]);
    expect(panels.legend!.map(({ tone }) => tone)).toEqual(['green', 'ochre']);
    expect(distributionPanels(picture, result, null, 'value').legend).toEqual([]);
  });
});
