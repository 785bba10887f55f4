import { z } from 'zod';
import { meanByT, meanInterval, type MeanFigures } from '../../claims/means.js';
import { tukeyKramer } from '../../claims/pairs-of-means.js';
import { powerOfSeveralMeans, welchContrast, welchSeveral } from '../../claims/several-means.js';
import { powerBySimulation, severalMeansModel } from '../../claims/simulated-power.js';
import { oneWay } from '../../claims/spreads.js';
import { f } from '../../distributions/families/f.js';
import { pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { hasNoSpread, magnitudeOf } from '../../numeric/no-spread.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { normalityLine, spreadsLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimExtra, ClaimPair, ClaimResult, LawPicture } from './claim-result.js';
import { noticeable, ofInterval } from './claim-settings.js';
import { claimResult, dotsOf, type Head } from './claim-source.js';
import { freedomWords, formatQuantity, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy } from './one-column.js';
import { endsWords, severalBasis, severalGroups, severalWords } from './several-settings.js';

const method = choice(
  'method',
  'test of several means',
  [
    { value: 'welch', text: 'Welch’s F (unequal variances)' },
    { value: 'one-way', text: 'one-way analysis of variance (equal variances)' },
  ],
  'welch',
);
const replicates = replicatesOf('replicates of the parametric bootstrap');
const seed = seedOf('seed of the parametric bootstrap');
const request = z.strictObject({
  ...severalBasis,
  method: method.schema,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

export const SEVERAL_MEANS_CLAIM: readonly SentencePart[] = [
  'The means of ',
  { subject: true },
  ' are claimed to be equal; alternative: at least one differs.',
];
const WELCH = { field: 'method', is: 'welch' } as const;
export const SEVERAL_MEANS_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  ', pairs by Tukey–Kramer, confidence intervals at ',
  ofInterval.field,
  '. Smallest difference of interest between two means: ',
  noticeable.field,
  '.',
  { text: ' With fewer than 10 readings in a group, p from ', showWhen: WELCH },
  { ...replicates.field, showWhen: WELCH },
  { text: ' parametric bootstrap replicates, seed ', showWhen: WELCH },
  { ...seed.field, showWhen: WELCH },
  { text: '.', showWhen: WELCH },
];

const figuresOf = ({ values }: Sample): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};

/** Every pair takes a while: of many groups only those next to nothing are left out. */
const MOST_PAIRED = 20;

function pairsOf(groups: readonly Sample[], confidence: number): ClaimPair[] {
  if (groups.length > MOST_PAIRED) return [];
  return tukeyKramer(
    groups.map(({ values }) => values),
    confidence,
  ).map(({ i, j, difference, interval, pValue }) => ({
    ...{ first: groups[i]!.name, second: groups[j]!.name, difference, interval, pValue },
  }));
}

function assumptionsOf(groups: readonly Sample[], { alpha, method: by }: Request): Assumption[] {
  const looked = groups.map(({ name, values, resolution }) => ({ name, values, resolution }));
  const normal = normalityLine(looked, {
    alpha: alpha / groups.length,
    mean: true,
    instead: 'the Kruskal–Wallis test of several medians',
  });
  const spreads = spreadsLine(
    groups.map(({ values }) => values),
    alpha,
    by === 'one-way' ? 'Welch’s F' : '',
  );
  if (by !== 'welch') return [normal, ...spreads];
  const does = (line: Assumption): Assumption =>
    line.holds
      ? { ...line, text: `${line.text} Welch’s F does not need it.` }
      : {
          text: `${line.text} Welch’s F does not need it; the Tukey–Kramer pairs do.`,
          ...{ holds: false, instead: 'Welch’s t test for a single pair' },
        };
  return [normal, ...spreads.map(does)];
}

function missedOf(figures: readonly MeanFigures[], within: number, { alpha, noticeable: named, method: by }: Request) {
  const sizes = figures.map(({ n }) => n);
  const n = sizes.reduce((a, b) => a + b, 0);
  const welch = by === 'welch';
  const simulated = powerBySimulation(
    severalMeansModel(
      sizes,
      figures.map(({ sd }) => sd),
    ),
    alpha,
  );
  const exact = (at: number, d: number) =>
    powerOfSeveralMeans(
      sizes.map((size) => Math.max(1.001, (size * at) / n)),
      d / within,
      alpha,
    );
  return missedBy({
    ...{ n, named, chanceAt: welch ? simulated : exact, simulated: welch, scale: within, least: 2 * sizes.length },
    ...{ per: 'readings in total', of: 'a difference between two means of' },
  });
}

/** The spread within the groups, and how much their means explain. */
function extrasOf(groups: readonly Sample[], within: number): ClaimExtra[] {
  const { statistic, df } = oneWay(groups.map(({ values }) => values));
  const amid = statistic * df[0];
  return [
    {
      key: 'within',
      name: 'SD within groups',
      value: within,
      as: 'spread',
      meaning: 'The pooled standard deviation within the groups.',
      formula: '√(Σ(nᵢ − 1)sᵢ²/(n − k))',
    },
    {
      key: 'explained',
      name: 'η²',
      value: amid / (amid + df[1]),
      as: 'share',
      meaning: 'The proportion of the total variation that is between the groups.',
      formula: 'sum of squares between groups/total sum of squares',
    },
  ];
}

const lawOfF = (statistic: number, df: readonly [number, number], alpha: number): LawPicture =>
  curveOf(f.of({ df1: df[0], df2: df[1] }), {
    ...{
      name: `F distribution with ${df[0]} and ${freedomWords(df[1])}`,
      axis: 'F',
      statistic,
      alternative: 'greater',
      alpha,
    },
  });

/** In smaller groups Welch's F rejects too often: 27 % of the time with ten groups of two (level 0.05). */
const ENOUGH_IN_EACH = 10;

const needsBootstrap = (figures: readonly MeanFigures[], { method: by }: Pick<Request, 'method'>): boolean =>
  by === 'welch' && figures.some(({ n }) => n < ENOUGH_IN_EACH);

const curveExtra = (value: number): ClaimExtra => ({
  ...{ key: 'p-curve', name: 'p, asymptotic', value, as: 'p' },
  meaning:
    'From the F distribution. It is too small when a group has fewer than 10 readings; the bootstrap p is used then.',
  formula: 'Welch (1951)',
});

function worked(
  sample: Sample,
  groups: readonly Sample[],
  head: Head,
  figures: readonly MeanFigures[],
  settings: Request,
): (simulated: SimulatedP | null) => ClaimResult {
  const { alpha, confidence, method: by } = settings;
  const {
    statistic,
    df,
    pValue: byCurve,
  } = by === 'welch' ? welchSeveral(figures) : oneWay(groups.map(({ values }) => values));
  const n = figures.reduce((sum, one) => sum + one.n, 0);
  const within = Math.sqrt(figures.reduce((sum, one) => sum + (one.n - 1) * one.sd ** 2, 0) / (n - groups.length));
  const shown = figures.map((own, i) => ({
    ...{ name: groups[i]!.name, n: own.n, centre: own.mean, sd: own.sd, dots: dotsOf(groups[i]!.values) },
    interval: own.sd > 0 ? meanInterval(own.mean, meanByT(own, 0), confidence, 'two-sided') : null,
  }));
  const scale: Scale = { ...head, as: 'reading', error: within / Math.sqrt(n / groups.length) };
  const missed = missedOf(figures, within, settings);
  const bootstrapped = needsBootstrap(figures, settings);
  return (simulated) =>
    claimResult(
      { ...head, n },
      { alpha, confidence, alternative: 'two-sided' },
      {
        ...severalWords('the mean', sample, groups),
        ...{ method: by, symbol: 'F', statistic, df: [...df], pSimulated: simulated },
        ...(bootstrapped
          ? { pValue: simulated?.pValue ?? null, pMethod: 'simulated', pAsymptotic: byCurve }
          : { pValue: byCurve, pMethod: by === 'welch' ? 'asymptotic' : 'exact' }),
        measured: endsWords(shown, (value) => formatQuantity(value, scale)),
        ...missed,
        assumptions: assumptionsOf(groups, settings),
        law: bootstrapped ? null : lawOfF(statistic, df, alpha),
        draws: {
          of: 'several-means',
          sizes: figures.map((one) => one.n),
          sds: by === 'welch' ? figures.map(({ sd }) => sd) : figures.map(() => 1),
          method: by,
        },
        groups: shown,
        pairs: pairsOf(groups, confidence),
        extras: [...extrasOf(groups, within), ...(bootstrapped ? [curveExtra(byCurve)] : [])],
      },
    );
}

/** Do the means of several groups differ. */
export const severalMeansAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'several-means',
  version: 2,
  name: 'Several means',
  title: 'do the means of several groups differ (Welch’s F, analysis of variance; pairs by Tukey–Kramer)',
  request,
  method: [...SEVERAL_MEANS_CLAIM, ' ', ...SEVERAL_MEANS_METHOD],
  subject: subjectWords,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = severalGroups(sample, { least: 2, purpose: 'a test of several means' });
    if ('available' in found) return found;
    const { groups, head } = found;
    const figures = groups.map(figuresOf);
    const flat = groups.findIndex(({ values }) => hasNoSpread(values));
    if (settings.method === 'welch' && flat >= 0)
      return unavailable(
        sample,
        `All readings of ${groups[flat]!.name} are equal, and Welch’s F needs a spread in every group. Choose one-way analysis of variance instead.`,
      );
    const magnitude = magnitudeOf(...groups.map(({ values }) => values));
    if (groups.every(({ values }) => hasNoSpread(values, magnitude)))
      return unavailable(
        sample,
        'All readings within each group are equal; a test of the means needs readings that vary.',
      );
    const result = worked(sample, groups, head, figures, settings);
    if (!needsBootstrap(figures, settings)) return result(null);
    const book = orderBook(settings.seed, chunkSizeFor(4 * groups.length));
    const input = {
      sizes: figures.map(({ n }) => n),
      sds: figures.map(({ sd }) => sd),
      observed: welchContrast(figures),
    };
    book.add({ kernel: 'welch-tallies', input }, settings.replicates!);
    const [chunks] = yield { partial: result(null), orders: book.orders };
    const far = chunks!.reduce((sum, chunk) => sum + chunk[0]!, 0);
    return result(pOfTally(far, settings.replicates!, settings.seed));
  },
  finding: claimFinding,
});
