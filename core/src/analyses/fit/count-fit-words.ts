import { simulatedNotes } from '../../road/simulated-notes.js';
import { supportWords } from '../../distributions/fit/akaike.js';
import { parameterWords } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import {
  equalsP,
  formatFigure,
  formatP,
  formatPercent,
  formatPercentOf,
  formatValue,
  groupThousands,
} from '../../numeric/format.js';
import { article, plural } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords } from '../../road/cautions.js';
import type { FigureOf } from '../../road/figure.js';
import {
  mainCountTest,
  pOfCountTest,
  type CountFitResult,
  type CountTest,
  type ObservedCell,
} from './count-fit-result.js';
import { briefly } from './law-words.js';

const title = ({ family }: Pick<CountFitResult, 'family'>) => familyByName(family).title;

/** "a Poisson distribution with mean 2.156". */
function lawSaid({ family, parameters, trials }: CountFitResult): string {
  const named = `${article(familyByName(family).title)} distribution with`;
  if (trials) {
    const of = trials.each === null ? 'varying trials' : plural(trials.each, 'trial');
    return `${named} ${of} and probability ${briefly(parameters.probability!, 4)}`;
  }
  return `${named} ${parameterWords(family, parameters, (value) => briefly(value, 4))}`;
}

const SYMBOLS = { 'chi-square': 'χ²', dispersion: 'D' } as const;
const symbolOf = (result: CountFitResult) =>
  SYMBOLS[mainCountTest(result) === result.dispersion ? 'dispersion' : 'chi-square'];

/** The answer, then the numbers: never "follows". */
export function countFinding(result: CountFitResult): Piece[] {
  const test = mainCountTest(result);
  const law = lawSaid(result);
  const { alpha, dispersion, main } = result;
  if (!test) {
    return [
      { text: 'Too few counts', strong: true, code: 'no-evidence' },
      { text: ` for a test of ${law} (n = ${groupThousands(result.n)}).` },
    ];
  }
  const p = pOfCountTest(test);
  const figures = `${symbolOf(result)} = ${formatFigure(test.statistic, 'statistic')}`;
  if (p === null) return [{ text: `Testing ${law}: ${figures}, p is being simulated.` }];
  const against = p < alpha;
  const lead: Piece[] = against
    ? [{ text: 'The counts depart from', strong: true, code: 'evidence' }]
    : [{ text: 'No evidence against', strong: true, code: 'no-evidence' }];
  const ratio = dispersion ? dispersion.statistic / dispersion.df : null;
  const varied =
    ratio === null || !(main === 'dispersion' || against)
      ? ''
      : ratio === 0
        ? ' All counts are equal.'
        : ` Their variance is ${briefly(ratio, 3)} times that of the distribution.`;
  return [...lead, { text: ` ${law} (${figures}, ${equalsP(p, alpha)}${levelWords(alpha)}).${varied}` }];
}

/** A departure that the other test found, and the reader would miss. */
function otherTestNote({ main, chiSquare, dispersion, alpha }: CountFitResult): Note[] {
  if (!chiSquare || !dispersion) return [];
  const [own, other] = main === 'dispersion' ? [dispersion, chiSquare] : [chiSquare, dispersion];
  const [p, q] = [pOfCountTest(own), pOfCountTest(other)];
  if (p === null || q === null || p < alpha === q < alpha) return [];
  const said =
    main === 'dispersion'
      ? `The χ² test, which compares all values and not only the dispersion, gives ${equalsP(q, alpha)}`
      : `The dispersion test, which is more powerful against a different variance, gives ${equalsP(q, alpha)}`;
  return [
    {
      code: 'tests-differ',
      text: `The two tests disagree. ${said}. The finding follows the chosen test.`,
    },
  ];
}

/** What a careful colleague would add. */
export function countNotes(result: CountFitResult): Note[] {
  const { alpha, n, zeros, pooled, families, family, chiSquare, dispersion } = result;
  const notes: Note[] = [...levelNote(alpha)];
  if (zeros.pSimulated && zeros.pSimulated.pValue < alpha && zeros.observed > 0) {
    const text = `There are more zeros than ${article(title(result))} distribution predicts: ${groupThousands(zeros.observed)} observed, ${briefly(zeros.expected, 3)} expected (${equalsP(zeros.pSimulated.pValue, alpha)}). A mixture with items that cannot have events would explain it.`;
    notes.push({ code: 'zero-inflated', text });
  }
  notes.push(...otherTestNote(result));
  if (pooled.length > 0 && pooled.length < 4) {
    notes.push({
      code: 'few-cells',
      text: `The χ² test has little power, because the counts form only ${plural(pooled.length, 'cell')}.${dispersion ? ' The dispersion test has more.' : ''}`,
    });
  }
  if (!chiSquare) {
    notes.push({
      code: 'no-cells',
      text: `The χ² test is not available: ${plural(n, 'count is', 'counts are')} too few for two cells.`,
    });
  }
  const [best] = families;
  const own = families.find((one) => one.family === family);
  if (best && own && own.difference > 2) {
    const { title: better } = familyByName(best.family);
    const text = `Another distribution may describe the counts better: by AICc, ${article(title(result))} distribution has ${supportWords(own.difference)} compared with ${article(better)} one (difference ${briefly(own.difference, 2)}).`;
    notes.push({ code: 'better-family', text });
  }
  if (dispersion?.pSimulated && dispersion.pSimulated.pValue < alpha && dispersion.statistic < dispersion.df) {
    notes.push({
      code: 'underdispersed',
      text: 'The counts vary less than independent events would. Check whether they were rounded, averaged or kept to a quota.',
    });
  }
  return [...notes, ...simulatedNotes(mainCountTest(result)?.pSimulated ?? null, alpha)];
}

const interval = ({ lower, upper }: { lower: number; upper: number }) => `${briefly(lower, 4)} – ${briefly(upper, 4)}`;

/** "0", "3 – 5", "7 or more". */
export function cellWords({ from, to }: Pick<ObservedCell, 'from' | 'to'>): string {
  if (from === null) return to === 0 ? '0' : `${formatValue(to!)} or fewer`;
  if (to === null) return `${formatValue(from)} or more`;
  return from === to ? formatValue(from) : `${formatValue(from)} – ${formatValue(to)}`;
}

const pWords = (test: CountTest | null, alpha: number, of: 'pSimulated' | 'pAsymptotic') => {
  const p = of === 'pSimulated' ? test?.pSimulated?.pValue : test?.pAsymptotic;
  return p === undefined || p === null ? null : formatP(p, alpha);
};
const simulatedNote = (test: CountTest | null, alpha: number) =>
  test?.pSimulated
    ? `${groupThousands(test.pSimulated.replicates)} samples: ${test.pSimulated.pInterval.map((p) => formatP(p, alpha)).join(' – ')}`
    : '';

/** The figures of a fit of counts. */
export const COUNT_FIT_FIGURES: readonly FigureOf<CountFitResult>[] = [
  {
    key: 'mean',
    name: 'mean',
    meaning: 'The mean count.',
    formula: 'Σx/n',
    text: ({ mean }) => briefly(mean, 4),
    note: ({ meanIntervals: { exact, t }, confidence }) =>
      `${formatPercent(confidence)}: ${interval((exact ?? t)!)}${exact ? ', exact' : ', t'}`,
  },
  {
    key: 'meanByT',
    name: 't interval of the mean',
    meaning: 'A confidence interval of the mean from the observed standard deviation, for any distribution.',
    formula: 'mean ± t · s/√n',
    use: 'Use it if the variance differs from the mean; the exact interval assumes Poisson counts.',
    text: ({ meanIntervals: { exact, t } }) => (exact && t ? interval(t) : null),
  },
  {
    key: 'rate',
    name: 'rate',
    meaning: 'The total number of successes divided by the total number of trials.',
    formula: 'Σx/Σm, interval of Clopper and Pearson (1934)',
    text: ({ rate }) => rate && formatPercentOf(rate.value),
    note: ({ rate, confidence }) =>
      rate
        ? `${formatPercent(confidence)}: ${formatPercentOf(rate.interval.lower, undefined, 3)} – ${formatPercentOf(rate.interval.upper, undefined, 3)}`
        : '',
  },
  {
    key: 'varianceRatio',
    name: 'variance/mean',
    meaning: 'About 1 for Poisson counts, larger if events cluster or items differ.',
    formula: 's²/mean',
    text: ({ varianceRatio }) => formatFigure(varianceRatio, 'statistic'),
  },
  {
    key: 'chiSquare',
    name: 'χ² of the cells',
    meaning: 'The distance between observed and expected counts, over the pooled cells.',
    formula: 'Σ (observed − expected)²/expected (Pearson 1900)',
    text: ({ chiSquare }) => chiSquare && formatFigure(chiSquare.statistic, 'statistic'),
    note: ({ chiSquare, pooled }) => (chiSquare ? `${pooled.length} cells, df ${Math.max(0, chiSquare.df)}` : ''),
  },
  {
    key: 'chiSquareP',
    name: 'p, simulated',
    meaning: 'The proportion of simulated samples of the fitted distribution that are at least as extreme.',
    formula: '(b + 1)/(B + 1)',
    use: 'Report this one.',
    text: ({ chiSquare, alpha }) => pWords(chiSquare, alpha, 'pSimulated'),
    note: ({ chiSquare, alpha }) => simulatedNote(chiSquare, alpha),
  },
  {
    key: 'chiSquareFormula',
    name: 'p, asymptotic',
    meaning: 'From the χ² distribution; only if the expected counts are large enough (Cochran 1954).',
    formula: 'χ² with cells − 1 − parameters degrees of freedom',
    text: ({ chiSquare, alpha }) => pWords(chiSquare, alpha, 'pAsymptotic'),
  },
  {
    key: 'dispersion',
    name: 'dispersion D',
    meaning: 'The variation of the counts relative to the distribution; about n − 1 if the distribution holds.',
    formula: 'Poisson Σ(x − mean)²/mean; binomial Σ(x − mp)²/(mp(1 − p)) (Fisher 1950)',
    text: ({ dispersion }) => dispersion && formatFigure(dispersion.statistic, 'statistic'),
    note: ({ dispersion }) => (dispersion ? `n − 1 is ${groupThousands(dispersion.df)}` : ''),
  },
  {
    key: 'dispersionP',
    name: 'p, simulated',
    meaning: 'Two-sided, from simulated Poisson counts with the same sum; exact for any mean.',
    formula: 'twice the smaller tail',
    text: ({ dispersion, alpha }) => pWords(dispersion, alpha, 'pSimulated'),
    note: ({ dispersion, alpha }) => simulatedNote(dispersion, alpha),
  },
  {
    key: 'zeros',
    name: 'zeros',
    meaning: 'The number of zeros, with the number expected by the distribution.',
    formula: 'n · P(X = 0)',
    text: ({ zeros }) => groupThousands(zeros.observed),
    note: ({ zeros }) => `expected ${briefly(zeros.expected, 3)}`,
  },
];

/** The cells, observed and expected, with what each adds to χ². */
export function countTable({ cells, pooled }: CountFitResult): (string | number)[][] {
  const rows = (some: readonly ObservedCell[], kind: string) =>
    some.map((cell) => {
      const { observed, expected } = cell;
      return [kind, cellWords(cell), observed, expected, observed - expected];
    });
  return [['cells', 'count', 'observed', 'expected', 'difference'], ...rows(cells, 'each'), ...rows(pooled, 'pooled')];
}
