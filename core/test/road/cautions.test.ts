import { describe as group, expect, it } from 'vitest';
import { confidenceNote, levelNote, tiedCount, leftOutNotes, whyNot } from '../../src/road/cautions.js';
import { describeAnalysis } from '../../src/analyses/shape/describe.js';
import type { DescribeResult } from '../../src/analyses/shape/describe-result.js';
import { missedSentence } from '../../src/analyses/fit/normality-words.js';
import { affordableReplicates } from '../../src/road/settings.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { drive } from '../../src/road/runner.js';
import { sampleOf } from '../samples.js';

const described = (values: number[], more: object = {}) =>
  drive(inThisThread, {
    id: 'describe',
    request: { column: 'thickness' },
    sample: { ...sampleOf(Float64Array.from(values)), ...more },
  });
const words = (result: DescribeResult) =>
  describeAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');

group('why a result cannot be had', () => {
  it('states what was left out', () => {
    const nothing = { ...sampleOf(new Float64Array()), missing: 2, setAside: 1, unreadable: 1 };
    expect(whyNot(nothing, 3, 'the plot')).toBe('thickness has no readings (2 missing, 1 set aside, 1 not a number).');
    expect(whyNot(sampleOf(Float64Array.of(1)), 3, 'the test')).toBe(
      'thickness has 1 reading; the test needs at least 3.',
    );
    expect(whyNot(sampleOf(Float64Array.of(1, 2, 3)), 3, 'the test')).toBeNull();
  });
});

group('cautions', () => {
  it('point out an unusual level, and the one that may have been meant', () => {
    expect(levelNote(0.05)).toEqual([]);
    expect(levelNote(0.3)[0]!.text).toBe('The significance level 0.3 is unusual; 0.05 and 0.01 are common.');
    expect(levelNote(0.99)[0]!.text).toContain(
      'The significance level 0.99 is unusual; 0.05 and 0.01 are common. Did you mean 0.01?',
    );
    expect(levelNote(0.0001)).toHaveLength(1);
  });

  it('count cells that are no numbers and readings that share a value', () => {
    expect(leftOutNotes({ ...sampleOf(new Float64Array()), unreadable: 2 })[0]!.text).toContain(
      '2 cells are not numbers and are left out. Correct them in Readings.',
    );
    expect(tiedCount(Float64Array.of(1, 2, 2, 3, 3, 3))).toBe(5);
    expect(tiedCount(Float64Array.of(1, 2, 3))).toBe(0);
  });

  it('say in whole tens of samples what would have been missed', () => {
    const missed = (share: number) =>
      missedSentence({
        resolution: null,
        sd: 1,
        n: 48,
        alpha: 0.05,
        missed: [{ population: 'lognormal', share, replicates: 2000 }],
      });
    expect(missed(0.52)).toBe(
      'With 48 readings and significance level 0.05, the test detects a lognormal distribution with skewness 1 with about 48\u00a0% power.',
    );
    expect(missed(0.001)).toContain('more than 99\u00a0% power');
    expect(missed(0.03)).toContain('about 97\u00a0% power');
    expect(missed(0.99)).toContain('about 1\u00a0% power');
    expect(missedSentence({ resolution: null, sd: 1, n: 48, alpha: 0.05, missed: [] })).toBeNull();
  });
});

group('analysis describe', () => {
  it('words centre and spread in the unit of the readings', async () => {
    const result = (await described([7.9, 8.1, 8.3], { resolution: 0.1 })) as DescribeResult;
    expect(words(result)).toBe('Mean 8.10\u00a0mm, standard deviation 0.20\u00a0mm, 3 readings.');
    expect(result.notes.map(({ code }) => code)).toEqual(['median-coverage']);
  });

  it('gives a single reading and equal readings what they have, and says what they lack', async () => {
    const one = (await described([8.1], { resolution: 0.1 })) as DescribeResult;
    expect(words(one)).toBe('One reading: 8.10\u00a0mm.');
    expect(one.notes[0]!.code).toBe('one-reading');
    const equal = (await described([8.1, 8.1, 8.1])) as DescribeResult;
    expect(equal.notes[0]!.code).toBe('no-spread');
    expect(isUnavailable(await described([]))).toBe(true);
  });

  it('takes readings near the ends of the doubles without an infinity', async () => {
    for (const scale of [1e-149, 1e149]) {
      const result = (await described([scale, 2 * scale, 4 * scale])) as DescribeResult;
      expect(Number.isFinite(result.sd)).toBe(true);
      expect(result.mean / scale).toBeCloseTo(7 / 3, 12);
    }
    for (const values of [
      [1e300, 2e300, -1e300],
      [1e-300, 2e-300, 4e-300],
    ]) {
      const result = (await described(values)) as DescribeResult;
      expect(result).toMatchObject({ available: true, variance: null });
      expect(result.sd! / Math.abs(values[1]!)).toBeGreaterThan(0.1);
    }
  });
});

group('replicates that can be afforded', () => {
  it('are what was wanted for usual columns, and fewer for long ones, never below the least', () => {
    expect(affordableReplicates(48, 20_000, 1_000)).toBe(20_000);
    expect(affordableReplicates(1_000, 20_000, 1_000)).toBe(20_000);
    expect(affordableReplicates(5_000, 20_000, 1_000)).toBe(4_000);
    expect(affordableReplicates(100_000, 20_000, 1_000)).toBe(1_000);
  });
});

group('a confidence that was typed as something else', () => {
  it.each([
    [0.0095, 'The confidence level 0.95 % is unusual; 95\u00a0% and 99\u00a0% are common. For 95\u00a0%, enter 95.'],
    [0.009, 'The confidence level 0.9 % is unusual; 95\u00a0% and 99\u00a0% are common. For 90\u00a0%, enter 90.'],
    [0.095, 'The confidence level 9.5 % is unusual; 95\u00a0% and 99\u00a0% are common. Did you mean 95\u00a0%?'],
  ])('of %f is pointed out', (confidence, words_) => {
    expect(confidenceNote(confidence)[0]!.text).toContain(words_);
  });
  it('is left alone where it is customary', () => expect(confidenceNote(0.95)).toEqual([]));
});
