import { analysisById, inThisThread } from '../core/src/analyses/registry.js';
import * as core from '../core/src/analyses/index.js';
import { isUnavailable, type Piece } from '../core/src/road/analysis.js';
import { NO_READINGS, type Sample } from '../core/src/readings/index.js';
import { methodOf } from '../core/src/road/method-sentence.js';
import { drive } from '../core/src/road/runner.js';
import { DEMO_COLUMNS, MANY_READINGS, ODD_COLUMNS, ODD_GROUPS, ODD_LABELS } from './odd-columns.js';

/** What an analysis says of a column: where, and each of its texts. */
export interface Said {
  analysis: string;
  of: string;
  texts: string[];
  /** Those of them that are the finding, and the cautions. */
  finding: string;
  cautions: string[];
}

const FEW = { replicates: 199 };
/** Analyses of one column that are fast enough for all columns, with their settings. */
const OF_EVERY: Readonly<Record<string, object>> = {
  ...{ describe: {}, histogram: {}, box: {}, 'in-order': {}, shares: {}, empirical: {}, dots: {}, 'stem-and-leaf': {} },
  ...{ normality: FEW, outliers: FEW, 'probability-plot': FEW, 'goodness-of-fit': { ...FEW, family: 'exponential' } },
  ...{
    'count-fit': FEW,
    'mean-claim': { claimed: 8, noticeable: 0.1, margin: 0.2 },
    'spread-claim': { claimed: 0.1, ...FEW },
  },
  ...{
    'mean-and-sd-claim': { claimed: 8, claimedSd: 0.1 },
    'rate-claim': { claimed: 2 },
    tolerance: { lower: 7, upper: 9 },
  },
  'share-claim': { claimed: 0.1, upper: 8.2 },
  bootstrap: { replicates: 999, statistic: 'mean' },
};
/** The others of one column, for a few columns. */
const OF_SOME: Readonly<Record<string, object>> = {
  ...{
    'median-claim': { claimed: 8 },
    transform: FEW,
    'outlier-rules': FEW,
    gallery: {},
    power: FEW,
    'bootstrap-plans': FEW,
  },
  ...{ 'compare-families': FEW, 'line-up': {}, permutation: { statistic: 'mean', claimed: 8, replicates: 999 } },
  ...{ simulate: { test: 't', replicates: 300 }, population: {}, 'simulated-sample': { number: 2, test: 't' } },
  'power-curves': { tests: ['t'], values: [5, 20], replicates: 300, shiftInSd: 0.5 },
  plan: { test: 't', shiftInSd: 0.8, replicates: 500 },
  replicate: { by: 'redrawing', number: 2, statistic: 'mean', replicates: 199 },
};
const SOME = ['two readings', 'twelve readings', 'one outlier', 'skewed to the right', 'counts'];
const OF_GROUPS: Readonly<Record<string, object>> = {
  ...{ 'two-means': { margin: 0.1 }, 'two-spreads': {}, 'two-medians': {}, 'two-shares': { upper: 8.1 } },
  ...{ 'several-means': { replicates: 999 }, 'several-medians': FEW, 'several-spreads': {}, 'two-samples': FEW },
  ...{
    'outlying-groups': FEW,
    screen: FEW,
    'outlier-screen': FEW,
    describe: {},
    box: {},
    normality: FEW,
    histogram: {},
  },
  permutation: { statistic: 'difference-of-means', replicates: 999 },
};
const OF_LABELS: Readonly<Record<string, object>> = {
  ...{ 'counts-claim': FEW, 'share-claim': { claimed: 0.3, level: 'chipped' }, 'mean-claim': { claimed: 1 } },
};
/** Without a column. */
const OF_NOTHING: readonly (readonly [string, object])[] = [
  ['distribution', { above: 1 }],
  ['distribution', { between: [-1, 1] }],
  ['distribution', { lowerShare: 0.9 }],
  ['distribution', { family: 'poisson', below: 3 }],
  ['distribution', { family: 'cauchy', centralShare: 0.5 }],
  ['distribution', { at: [0, 1] }],
  ['propagate', { inputs: { x: { family: 'normal' }, y: { family: 'uniform' } }, formula: 'x + y', trials: 2_000 }],
  ['counts-claim', { counts: { chipped: 24, pinholed: 12, crazed: 9 } }],
  [
    'table-claim',
    {
      table: [
        [12, 5],
        [3, 14],
      ],
    },
  ],
  [
    'two-shares',
    {
      figures: [
        { count: 8, n: 10 },
        { count: 3, n: 10 },
      ],
    },
  ],
  ['rate-claim', { figures: { count: 7, exposure: 48 }, claimed: 0.2 }],
  ['mean-claim', { figures: { n: 12, mean: 8.02, sd: 0.11 }, claimed: 8, method: 'z', knownSd: 0.1 }],
];

const said = (pieces: readonly Piece[]) => pieces.map(({ text }) => text).join('');
/** What is told of a claim beside its finding. */
function besideClaim(result: unknown): string[] {
  if (typeof result !== 'object' || result === null || !('sought' in result)) return [];
  const claim = result as core.ClaimResult;
  return [core.readBack(claim), core.missedWords(claim) ?? '', core.pWords(claim) ?? ''].filter(Boolean);
}
const textsIn = (result: object, key: 'notes' | 'assumptions'): string[] =>
  ((result as Record<string, { text: string }[]>)[key] ?? []).map(({ text }) => text);

async function saidOf(id: string, of: string, asked: object, sample: Sample): Promise<Said> {
  const analysis = analysisById(id);
  const bare = (texts: string[]): Said => ({ analysis: id, of, texts, finding: '', cautions: [] });
  const readable = analysis.request.safeParse(asked);
  if (!readable.success) return bare(readable.error.issues.map(({ message }) => message));
  const request = analysis.resolve(readable.data, sample);
  const result = (await drive(inThisThread, { id, request, sample })) as object;
  const method = methodOf(analysis as never, request);
  if (isUnavailable(result)) return bare([method, result.reason]);
  const finding = said(analysis.finding(result));
  const cautions = textsIn(result, 'notes');
  const texts = [method, finding, ...cautions, ...textsIn(result, 'assumptions')];
  const paragraph = id === 'describe' ? core.resultParagraph(result as core.DescribeResult) : '';
  return { analysis: id, of, texts: [...texts, paragraph, ...besideClaim(result)].filter(Boolean), finding, cautions };
}

/** A request about several columns, where the analysis takes them by name. */
function beside(id: string, { name, groups }: Sample, asked: object): object {
  const [column = name, ...others] = (groups?.samples ?? []).map((sample) => sample.name);
  const request = { column, beside: others, ...asked };
  return analysisById(id).request.safeParse(request).success ? request : { column, ...asked };
}

/** Everything that the analyses say of the demo studies and of odd columns, in order. */
export async function* everythingSaid(): AsyncGenerator<Said> {
  const named = (sample: Sample) => ({ column: sample.name });
  for (const [id, asked] of Object.entries(OF_EVERY))
    for (const [of, sample] of Object.entries({ ...DEMO_COLUMNS, ...ODD_COLUMNS }))
      yield saidOf(id, of, { ...named(sample), ...asked }, sample);
  yield saidOf('describe', '100 000 readings', named(MANY_READINGS), MANY_READINGS);
  yield saidOf('mean-claim', '100 000 readings', { ...named(MANY_READINGS), claimed: 8 }, MANY_READINGS);
  for (const [id, asked] of Object.entries(OF_SOME))
    for (const of of SOME) yield saidOf(id, of, { ...named(ODD_COLUMNS[of]!), ...asked }, ODD_COLUMNS[of]!);
  for (const [id, asked] of Object.entries(OF_GROUPS))
    for (const [of, sample] of Object.entries(ODD_GROUPS)) yield saidOf(id, of, beside(id, sample, asked), sample);
  for (const [id, asked] of Object.entries(OF_LABELS))
    for (const [of, sample] of Object.entries(ODD_LABELS)) yield saidOf(id, of, { ...named(sample), ...asked }, sample);
  for (const [id, asked] of OF_NOTHING) yield saidOf(id, 'typed figures', asked, NO_READINGS);
}
