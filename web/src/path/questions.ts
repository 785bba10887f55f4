import { QUESTION_WORDS, QUESTIONS, type AskedKind, type Look } from '@verdict/contract';

/** Something to look at before a question is decided: where it is seen, and by which results it was. */
export interface Step {
  /** In a list of what is open: "order of the rows". */
  words: string;
  /** The name of the stage's route, and what is asked there. */
  stage: string;
  query?: Record<string, string>;
  /** The analyses of which one result shows it. */
  by: readonly string[];
}

const figures: Step = { words: 'centre, spread and shape', stage: 'shape', by: ['describe'] };
const histogram: Step = {
  words: 'a histogram or another picture',
  stage: 'shape',
  by: ['histogram', 'dots', 'stem-and-leaf', 'empirical', 'box'],
};
const order: Step = {
  words: 'readings in row order',
  stage: 'shape',
  query: { picture: 'in-order' },
  by: ['in-order'],
};
const plot: Step = { words: 'probability plot', stage: 'fit', by: ['probability-plot'] };
const normality: Step = { words: 'a test of normality', stage: 'fit', by: ['normality'] };
const far: Step = { words: 'outliers', stage: 'outliers', by: ['outliers', 'outlier-rules'] };
const missed: Step = {
  words: 'power of the test',
  stage: 'fit',
  query: { ask: 'missed' },
  by: ['power'],
};
const groups: Step = {
  words: 'comparison of the groups',
  stage: 'shape',
  query: { picture: 'box' },
  by: ['box', 'two-samples'],
};

const CLAIMS_OF_ONE = [
  'mean-claim',
  'spread-claim',
  'median-claim',
  'mean-and-sd-claim',
  'share-claim',
  'rate-claim',
  'counts-claim',
  'tolerance',
  'claim-screen',
];
const CLAIMS_OF_GROUPS = [
  'two-means',
  'two-medians',
  'two-spreads',
  'two-shares',
  'several-means',
  'several-medians',
  'several-spreads',
  'table-claim',
];
const SIMULATED = { stage: 'simulate' } as const;

/** What there is to look at for each question, in the order of the work. It is shown, and never asked for. */
export const STEPS: Record<AskedKind, readonly Step[]> = {
  normal: [figures, histogram, order, plot, normality, far, missed],
  family: [
    histogram,
    order,
    {
      words: 'ranking of all distributions',
      stage: 'fit',
      query: { show: 'families' },
      by: ['compare-families', 'count-fit'],
    },
    plot,
    { words: 'goodness of fit', stage: 'fit', by: ['goodness-of-fit', 'normality', 'count-fit'] },
    { words: 'proportions within limits', stage: 'shape', by: ['shares'] },
  ],
  outlier: [
    histogram,
    order,
    { words: 'the most extreme readings', stage: 'outliers', by: ['outliers'] },
    { words: 'comparison of outlier rules', stage: 'outliers', query: { ask: 'which' }, by: ['outlier-rules'] },
    { words: 'normality without the outliers', stage: 'fit', by: ['normality', 'probability-plot'] },
  ],
  claim: [
    figures,
    order,
    { words: 'test of the claim', stage: 'claims', by: CLAIMS_OF_ONE },
    { words: 'assumptions of the test', stage: 'fit', by: ['probability-plot', 'normality'] },
    far,
    {
      words: 'permutation test',
      stage: 'resample',
      query: { ask: 'shuffle' },
      by: ['permutation', 'bootstrap'],
    },
  ],
  differ: [
    groups,
    order,
    { words: 'size of the difference', stage: 'claims', by: CLAIMS_OF_GROUPS },
    far,
    { words: 'permutation test', stage: 'resample', query: { ask: 'shuffle' }, by: ['permutation'] },
  ],
  sure: [
    figures,
    order,
    far,
    { words: 'bootstrap', stage: 'resample', by: ['bootstrap'] },
    { words: 'precision of larger samples', stage: 'resample', query: { ask: 'plans' }, by: ['bootstrap-plans'] },
  ],
  'how-many': [
    figures,
    { words: 'sample size of a test', ...SIMULATED, query: { ask: 'plan' }, by: ['plan'] },
    { words: 'power curves', ...SIMULATED, query: { ask: 'curves' }, by: ['power-curves'] },
    { words: 'simulated samples of that size', ...SIMULATED, by: ['simulate'] },
  ],
};

/** The questions as they are chosen among; an empty value is none of them. */
export const QUESTION_CHOICES: readonly { value: AskedKind | ''; text: string }[] = [
  { value: '', text: 'none of these' },
  ...QUESTIONS.map((value) => ({ value, text: QUESTION_WORDS[value] })),
];

/** A step, and whether it was looked at. */
export interface Standing extends Step {
  seen: boolean;
}

/** What of a question was looked at, of this column: what needs no column counts for any. */
export function standingOf(
  asks: AskedKind,
  looks: readonly Pick<Look, 'analysis' | 'column'>[],
  column: string | null,
): Standing[] {
  const seen = new Set(
    looks.filter((look) => look.column === null || look.column === column).map((look) => look.analysis),
  );
  return STEPS[asks].map((step) => ({ ...step, seen: step.by.some((analysis) => seen.has(analysis)) }));
}

/** What is still open, in a sentence; empty where all was looked at. */
export function openWords(standing: readonly Standing[]): string {
  const open = standing.filter(({ seen }) => !seen).map(({ words }) => words);
  return open.length ? `Not viewed: ${open.join(', ')}.` : '';
}
