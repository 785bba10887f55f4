import { describe, expect, it } from 'vitest';
import {
  cautionsOf,
  changeSchema,
  DECISION_WORDS,
  DECISIONS,
  decisionsOf,
  decisionWords,
  openCautionsOf,
  QUESTION_WORDS,
  QUESTIONS,
  ruleRequestSchema,
  sayRequestSchema,
} from '../src/index.js';

describe('decisions', () => {
  it('are each offered by some question, and that it is not settled by all, last', () => {
    const offered = new Set(QUESTIONS.flatMap((asks) => decisionsOf(asks)));
    expect([...offered].sort()).toEqual([...DECISIONS].sort());
    for (const asks of [null, ...QUESTIONS]) expect(decisionsOf(asks).at(-1)).toBe('not-settled');
    expect(decisionsOf(null)).toContain('treat-as-normal');
  });

  it('differ in their words, and name their family', () => {
    expect(new Set(Object.values(DECISION_WORDS)).size).toBe(DECISIONS.length);
    expect(decisionWords('treat-as-family', 'Weibull')).toBe('treat as Weibull');
    expect(decisionWords('keep-readings', null)).toBe('keep all readings');
    for (const asks of QUESTIONS) expect(QUESTION_WORDS[asks]).toMatch(/\?$/);
  });

  it('need a reason; by default nothing is left open, and there is no family', () => {
    const asked = { revision: 1, who: 'A', decision: 'differ', reason: ' seen ', evidence: [] };
    expect(ruleRequestSchema.parse(asked)).toMatchObject({ reason: 'seen', leftOpen: '', family: null });
    for (const wrong of [
      { reason: ' ' },
      { decision: 'yes' },
      { family: '' },
      { leftOpen: 'x'.repeat(1001) },
      { more: 1 },
    ])
      expect(ruleRequestSchema.safeParse({ ...asked, ...wrong }).success, JSON.stringify(wrong)).toBe(false);
  });
});

describe('what is said of a piece of evidence', () => {
  it('answers cautions that its result has, each once, and those that only reassure ask nothing', () => {
    const result = { notes: [{ text: 'a' }, { text: 'b', quiet: true }, { text: 'a' }, { text: 'c' }] };
    expect(cautionsOf(result)).toEqual(['a', 'c']);
    expect(openCautionsOf({ result, answers: [{ to: 'a', words: 'w', who: 'A', at: '' }] })).toEqual(['c']);
  });

  it('is read from whatever a result from elsewhere holds in the place of notes', () => {
    for (const result of [undefined, null, 7, 'notes', { notes: { text: 'a' } }, { notes: [7, null, { text: 1 }] }])
      expect(cautionsOf(result)).toEqual([]);
  });

  it('is a note, an answer or a place, and nothing of what was found', () => {
    expect(sayRequestSchema.parse({ note: ' x ' })).toEqual({ note: 'x' });
    for (const wrong of [
      { result: {} },
      { answer: { to: 'a', words: 'b' } },
      { leads: 'yes' },
      { note: 'x'.repeat(2001) },
    ])
      expect(sayRequestSchema.safeParse(wrong).success, JSON.stringify(wrong)).toBe(false);
  });
});

describe('the tags of a study', () => {
  const tags = (of: string[]) => changeSchema.safeParse({ kind: 'change-study', tags: of });
  it('are words, each once, and not too many', () => {
    expect(tags([' glaze ', 'week 46']).data).toMatchObject({ tags: ['glaze', 'week 46'] });
    for (const wrong of [
      [''],
      ['  '],
      ['a', 'a'],
      ['a', ' a'],
      ['x'.repeat(31)],
      Array.from({ length: 13 }, (_, i) => `t${i}`),
    ])
      expect(tags(wrong).success, wrong.join()).toBe(false);
  });
});
