import { describe, expect, it } from 'vitest';
import { carriedTo, givenOtherwise } from '../src/stages/distributions/carried-over.js';
import { newDraft, requestFrom, usualTexts, type Draft } from '../src/stages/distributions/question.js';
import { familyByName } from '@verdict/core/distributions';

const draftOf = (more: Partial<Draft>): Draft => ({ ...newDraft(), ...more });
const normal = (mean: string, sd: string) => draftOf({ parameters: { mean, sd } });

describe('telling a distribution otherwise', () => {
  it('keeps what it is: variance 6.25 becomes sd 2.5, and back', () => {
    const told = draftOf({ by: 'variance', mean: '20', spread: '6.25' });
    expect(givenOtherwise(told, 'parameters')).toEqual({ by: 'parameters', parameters: { mean: '20', sd: '2.5' } });
    expect(givenOtherwise(normal('20', '2.5'), 'variance')).toEqual({ by: 'variance', mean: '20', spread: '6.25' });
  });

  it('returns to the same parameters for every family defined by its mean', () => {
    const gamma = draftOf({ family: 'gamma', parameters: { shape: '4', scale: '2', threshold: '1' } });
    const bySd = { ...gamma, ...givenOtherwise(gamma, 'sd') };
    expect(bySd).toMatchObject({ by: 'sd', mean: '9', spread: '4' });
    const byVariance = { ...bySd, ...givenOtherwise(bySd, 'variance') };
    expect(byVariance.spread).toBe('16');
    const back = { ...byVariance, ...givenOtherwise(byVariance, 'parameters') };
    expect(back.parameters).toEqual({ shape: '4', scale: '2', threshold: '1' });
  });

  it('leaves typed text that cannot be converted yet', () => {
    expect(givenOtherwise(normal('x', '2'), 'variance')).toEqual({ by: 'variance' });
    const empty = draftOf({ by: 'sd', mean: '5', spread: '' });
    expect(givenOtherwise(empty, 'parameters')).toEqual({ by: 'parameters' });
    const cauchy = draftOf({ family: 'cauchy', parameters: usualTexts(familyByName('cauchy')) });
    expect(givenOtherwise(cauchy, 'sd')).toEqual({ by: 'sd' });
  });
});

describe('another question', () => {
  it('has the limit that was seen, not one of an older question', () => {
    const below = draftOf({ ...normal('20', '2.5'), asked: 'below', a: '-1', b: '23' });
    const above = { ...below, ...carriedTo(below, 'above') };
    expect(requestFrom(above)).toMatchObject({ request: { above: 23 } });
    const again = { ...above, ...carriedTo({ ...above, a: '18' }, 'below') };
    expect(again.b).toBe('18');
  });

  it('with two limits has the one that was seen and another beside it, in order', () => {
    const below = draftOf({ ...normal('20', '2.5'), asked: 'below', a: '90', b: '23' });
    const between = { ...below, ...carriedTo(below, 'between') };
    expect(between).toMatchObject({ a: '17', b: '23' });
    const above = draftOf({ ...normal('20', '2.5'), asked: 'above', a: '23', b: '-4' });
    expect({ ...above, ...carriedTo(above, 'outside') }).toMatchObject({ a: '23', b: '25.5' });
    expect('request' in requestFrom(between)).toBe(true);
  });

  it('of shares, or from two limits, is only another question', () => {
    expect(carriedTo(draftOf({ asked: 'between' }), 'below')).toEqual({ asked: 'below' });
    expect(carriedTo(draftOf({ asked: 'lowerShare' }), 'upperShare')).toEqual({ asked: 'upperShare' });
    expect(carriedTo(draftOf({ asked: 'below', b: 'x' }), 'between')).toEqual({ asked: 'between' });
  });
});
