import { powerBySimulation, twoSpreadsModel } from '../../claims/simulated-power.js';
import { z } from 'zod';
import { bothSidesFor, openEnd, pOfTails } from '../../claims/alternative.js';
import { meanInterval, welch } from '../../claims/means.js';
import { powerOfTwoSpreads } from '../../claims/power-of-spreads.js';
import { brownForsythe, spreadsByF } from '../../claims/spreads.js';
import { medianOfSorted } from '../../describe/quantiles.js';
import { f } from '../../distributions/families/f.js';
import { formatFigure, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineAnalysis, type SentencePart, type Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice, number } from '../../road/setting.js';
import { twoOf } from '../../road/two-of.js';
import type { Sample } from '../../readings/sample.js';
import { sdInterval } from '../../describe/intervals.js';
import { normalityLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { ClaimGroup, ClaimResult } from './claim-result.js';
import { ofInterval, typedFigures, ONE_SOURCE, oneSource as onlyOne } from './claim-settings.js';
import { claimResult, typedHead, type Head } from './claim-source.js';
import { formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy } from './one-column.js';
import { twoAlternative, twoBasis, twoSubject, twoWords } from './two-settings.js';
import { twoSource } from './two-source.js';

const method = choice(
  'method',
  'test of two standard deviations',
  [
    { value: 'brown-forsythe', text: 'Brown–Forsythe' },
    { value: 'f', text: 'F test (normal distributions)' },
  ],
  'brown-forsythe',
);
const noticeable = number('noticeable', 'smallest ratio of interest', { above: 1 }, 'not set');

const request = z
  .strictObject({
    ...twoBasis,
    noticeable: noticeable.schema,
    method: method.schema,
    figures: z.tuple([typedFigures, typedFigures]).optional(),
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const TWO_SPREADS_CLAIM: readonly SentencePart[] = [
  'The standard deviations of ',
  { subject: true },
  ' are claimed to be the same; alternative: ',
  twoAlternative.field,
  '.',
];
export const TWO_SPREADS_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  ', confidence interval at ',
  ofInterval.field,
  '. Smallest ratio of interest: ',
  noticeable.field,
  '.',
];

interface Compared {
  names: [string, string];
  of: { name: string; by: string | null };
  sizes: [number, number];
  sds: [number, number];
  samples: [Sample, Sample] | null;
  head: Head;
}

const sdOf = (values: Float64Array) => {
  const { n, s2 } = centralMoments(values);
  return Math.sqrt(s2 / (n - 1));
};

function compared(sample: Sample, settings: Request): Compared | Unavailable {
  const { figures, method: by } = settings;
  if (!figures) {
    const two = twoSource(sample, settings, { least: 2, purpose: 'a test of two standard deviations' });
    if ('available' in two) return two;
    const { a, b, of, head } = two;
    return {
      names: [a.name, b.name],
      of,
      sizes: [a.values.length, b.values.length],
      sds: [sdOf(a.values), sdOf(b.values)],
      samples: [a, b],
      head,
    };
  }
  if (by !== 'f')
    return unavailable(sample, 'The Brown–Forsythe test needs readings. For typed figures choose the F test.');
  const [a, b] = figures;
  if (a.n < 2 || b.n < 2)
    return unavailable(sample, 'A test of two standard deviations needs at least 2 readings in each group.');
  return {
    names: ['the first sample', 'the second sample'],
    of: { name: 'the readings', by: 'typed figures' },
    sizes: [a.n, b.n],
    sds: [a.sd, b.sd],
    samples: null,
    head: typedHead(a.n + b.n),
  };
}

/** Distances from the median, which Brown and Forsythe compare the means of. */
function distancesOf(values: Float64Array) {
  const median = medianOfSorted(values.slice().sort());
  const distances = values.map((x) => Math.abs(x - median));
  const { n, mean } = centralMoments(distances);
  return { n, mean, sd: sdOf(distances), distances };
}

/** By the distances from the medians: two-sided the F of the paper, one-sided the t that is its root, with the interval of the difference of the mean distances. */
function byDistances(
  { samples }: Compared,
  { alternative, confidence, alpha }: Request,
): Partial<ClaimResult> | string {
  const [a, b] = samples!.map(({ values }) => distancesOf(values)) as [
    ReturnType<typeof distancesOf>,
    ReturnType<typeof distancesOf>,
  ];
  const { statistic, df, pValue } = brownForsythe(samples!.map(({ values }) => values));
  if (!Number.isFinite(statistic))
    return 'All readings lie at the same distance from the median of their group, so the Brown–Forsythe test cannot be calculated.';
  const half = {
    lower: a.mean < b.mean ? pValue / 2 : 1 - pValue / 2,
    upper: a.mean > b.mean ? pValue / 2 : 1 - pValue / 2,
  };
  const interval = a.sd > 0 || b.sd > 0 ? meanInterval(a.mean - b.mean, welch(a, b), confidence, alternative) : null;
  return {
    ...{ symbol: 'F', statistic, df: [...df], pMethod: 'asymptotic' },
    // What it compares: not the ratio, which is a figure of its own.
    ...{ claimed: 0, estimate: a.mean - b.mean, difference: a.mean - b.mean },
    pValue: alternative === 'two-sided' ? pValue : alternative === 'less' ? half.lower : half.upper,
    ...{ interval, intervalOf: 'the difference of the mean absolute deviations from the median' },
    law: curveOf(f.of({ df1: df[0], df2: df[1] }), {
      name: `F distribution with ${df[0]} and ${groupThousands(df[1])} degrees of freedom`,
      axis: 'F',
      statistic,
      alternative: 'greater',
      alpha,
    }),
  };
}

function byF(
  { sds: [s, t], sizes: [n, m], head }: Compared,
  { alternative, confidence, alpha }: Request,
): Partial<ClaimResult> {
  const { statistic, df, tails } = spreadsByF({ n, sd: s }, { n: m, sd: t });
  const law = f.of({ df1: df[0], df2: df[1] });
  const tail = (1 - bothSidesFor(confidence, alternative)) / 2;
  const ends = [Math.sqrt(statistic / law.survivalQuantile(tail)), Math.sqrt(statistic / law.quantile(tail))] as const;
  const interval = openEnd(ends, alternative);
  return {
    ...{ symbol: 'F', statistic, df: [...df], pValue: pOfTails(tails, alternative), pMethod: 'exact' },
    ...{ interval, intervalOf: 'the ratio of the standard deviations' },
    law: curveOf(law, {
      name: `F distribution with ${df[0]} and ${groupThousands(df[1])} degrees of freedom`,
      axis: 'F',
      statistic,
      alternative,
      alpha,
    }),
    measured: `${formatPercentOf(confidence)} confidence interval of the ratio ${formatInterval(interval, { ...head, as: 'ratio' })}`,
  };
}

/** Up to so many readings the power of Brown–Forsythe is simulated. */
const MOST_SIMULATED = 200;

/** What a ratio could be missed, by the test that is asked for. */
function powerOf(
  { sizes: [n, m] }: Pick<Compared, 'sizes'>,
  { alpha, alternative, noticeable: named, method: by }: Request,
) {
  const simulated =
    by !== 'f' && n + m <= MOST_SIMULATED ? powerBySimulation(twoSpreadsModel([n, m], alternative), alpha) : null;
  const chanceAt = (at: number, ratio: number) => {
    if (simulated && at <= MOST_SIMULATED) return simulated(at, ratio);
    const share = at / (n + m);
    const sizes = [Math.max(2, n * share), Math.max(2, m * share)] as const;
    return powerOfTwoSpreads(sizes, alternative === 'less' ? 1 / (1 + ratio) : 1 + ratio, alpha, alternative);
  };
  const found = missedBy({
    n: n + m,
    chanceAt,
    named: named === undefined ? undefined : named - 1,
    scale: 0.5,
    least: 4,
    per: 'readings in total',
    of: 'a ratio of the standard deviations of',
    simulated: simulated !== null,
    approximate: by !== 'f' && simulated === null,
  });
  const { power, smallestNoticeable } = found;
  return {
    power: { ...power, noticeable: named ?? null, as: 'ratio' as const },
    smallestNoticeable: smallestNoticeable === null ? null : 1 + smallestNoticeable,
  };
}

function groupsOf({ names, sizes, sds }: Compared, confidence: number): ClaimGroup[] {
  return names.map((name, i) => ({
    ...{ name, n: sizes[i]!, centre: sds[i]!, sd: null, dots: [] },
    interval: sds[i]! > 0 ? openEnd(sdInterval(sizes[i]!, sds[i]!, confidence), 'two-sided') : null,
  }));
}

/** Do the standard deviations of two groups differ. */
export const twoSpreadsAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'two-spreads',
  version: 2,
  name: 'Two standard deviations',
  title: 'do the standard deviations of two groups differ (Brown–Forsythe, F test)',
  needsReadings: false,
  request,
  method: [...TWO_SPREADS_CLAIM, ' ', ...TWO_SPREADS_METHOD],
  subject: (settings) => (settings.figures ? 'two typed samples' : twoSubject(settings)),
  resolve: (settings, sample) => {
    const found = settings.figures ? '' : twoOf(sample, settings);
    return typeof found === 'string' ? settings : { ...settings, first: found[0].name, second: found[1].name };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const of = compared(sample, settings);
    if ('available' in of) return of;
    const {
      sds: [s, t],
      head,
      names,
      samples,
    } = of;
    if (!(s > 0) || !(t > 0))
      return unavailable(
        sample,
        `All readings of ${s > 0 ? names[1] : names[0]} are equal, so there is no ratio of standard deviations.`,
      );
    const { method: by, alternative, confidence, alpha } = settings;
    const found = by === 'f' ? byF(of, settings) : byDistances(of, settings);
    if (typeof found === 'string') return unavailable(sample, found);
    const scale: Scale = { ...head, as: 'reading' };
    const ratio = s / t;
    const told = `Standard deviation ${formatQuantity(s, scale, 'spread')} (${names[0]}) and ${formatQuantity(t, scale, 'spread')} (${names[1]}), ratio ${formatFigure(ratio, 'statistic')}`;
    return claimResult(head, settings, {
      ...twoWords('the standard deviation', of.of, names, alternative),
      ...{ as: by === 'f' ? 'ratio' : 'reading', claimed: 1, estimate: ratio, difference: ratio - 1, method: by },
      ...found,
      measured: found.measured ? `${told}; ${found.measured}` : told,
      ...powerOf(of, settings),
      assumptions:
        by === 'f' && samples
          ? [
              normalityLine(
                samples.map(({ name, values, resolution }) => ({ name, values, resolution })),
                { alpha, mean: false, instead: 'the Brown–Forsythe test; the F test relies strongly on normality' },
              ),
            ]
          : [
              {
                text:
                  by === 'f'
                    ? 'Normality: cannot be checked from typed figures, and the F test relies on it.'
                    : 'Normality: the Brown–Forsythe test hardly needs it.',
                holds: true,
                instead: '',
              },
            ],
      draws: { of: 'spreads', sizes: of.sizes, method: by },
      groups: groupsOf(of, confidence),
      extras: [
        {
          key: 'ratio',
          name: 'ratio of the SDs',
          value: ratio,
          as: 'ratio',
          meaning: 'The standard deviation of the first group divided by that of the second.',
          formula: 's₁/s₂',
        },
      ],
    });
  },
  finding: claimFinding,
});
