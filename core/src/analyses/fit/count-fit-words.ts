import { simulatedNotes } from '../../road/simulated-notes.js';
import { supportWords } from '../../distributions/fit/akaike.js';
import { articleOf, parameterWords } from '../../distributions/names.js';
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
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
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
  const named = `${articleOf(familyByName(family).title)} ${familyByName(family).title} distribution with`;
  if (trials) {
    const of = trials.each === null ? 'the trials of each' : `${groupThousands(trials.each)} trials`;
    return `${named} ${of} and probability ${briefly(parameters.probability!, 4)}`;
  }
  return `${named} ${parameterWords(family, parameters, (value) => briefly(value, 4))}`;
}

const SYMBOLS = { 'chi-square': 'χ²', dispersion: 'D' } as const;
const symbolOf = (result: CountFitResult) =>
  SYMBOLS[mainCountTest(result) === result.dispersion ? 'dispersion' : 'chi-square'];

/** The finding: never "follows", always the level. */
export function countFinding(result: CountFitResult): Piece[] {
  const test = mainCountTest(result);
  const law = lawSaid(result);
  const { alpha, dispersion, main } = result;
  if (!test) {
    return [
      { text: `${groupThousands(result.n)} counts beside ${law}: ` },
      { text: 'too few', strong: true, code: 'no-evidence' },
      { text: ' to be tested.' },
    ];
  }
  const p = pOfCountTest(test);
  const figures = `${symbolOf(result)} = ${formatFigure(test.statistic, 'statistic')}`;
  if (p === null) return [{ text: `${figures} against ${law}; its p-value is being simulated.` }];
  const against = p < alpha;
  const lead: Piece[] = against
    ? [{ text: 'The counts ' }, { text: 'depart from', strong: true, code: 'evidence' }]
    : [{ text: 'There is ' }, { text: 'no evidence against', strong: true, code: 'no-evidence' }];
  const ratio = dispersion ? dispersion.statistic / dispersion.df : null;
  const varied =
    ratio === null || !(main === 'dispersion' || against)
      ? ''
      : ratio === 0
        ? ' They do not vary at all.'
        : ` They vary ${briefly(ratio, 3)} times as much as it lets them.`;
  return [...lead, { text: ` ${law}: ${figures}, ${equalsP(p, alpha)}, level ${alpha}.${varied}` }];
}

/** A departure that the other test found, and the reader would miss. */
function otherTestNote({ main, chiSquare, dispersion, alpha }: CountFitResult): Note[] {
  if (!chiSquare || !dispersion) return [];
  const [own, other] = main === 'dispersion' ? [dispersion, chiSquare] : [chiSquare, dispersion];
  const [p, q] = [pOfCountTest(own), pOfCountTest(other)];
  if (p === null || q === null || p < alpha === q < alpha) return [];
  const said =
    main === 'dispersion'
      ? `χ² of the cells gives ${equalsP(q, alpha)}: it looks at every value, not at the spread alone`
      : `the dispersion test gives ${equalsP(q, alpha)}: it looks at the spread alone, and sees it better`;
  return [
    {
      code: 'tests-differ',
      text: `The two tests fall on different sides of the level; ${said}. The finding is that of the chosen one.`,
    },
  ];
}

/** What a careful colleague would add. */
export function countNotes(result: CountFitResult): Note[] {
  const { alpha, n, zeros, pooled, families, family, chiSquare, dispersion } = result;
  const notes: Note[] = [...levelNote(alpha)];
  if (zeros.pSimulated && zeros.pSimulated.pValue < alpha && zeros.observed > 0) {
    const text = `${groupThousands(zeros.observed)} zeros where ${briefly(zeros.expected, 3)} are expected (${equalsP(zeros.pSimulated.pValue, alpha)}): more than the ${title(result)} distribution has. Two kinds of items, some of which cannot show any, would do that.`;
    notes.push({ code: 'zero-inflated', text });
  }
  notes.push(...otherTestNote(result));
  if (pooled.length > 0 && pooled.length < 4) {
    notes.push({
      code: 'few-cells',
      text: `The counts make ${pooled.length} cells: χ² sees only gross departures.${dispersion ? ' The dispersion sees more.' : ''}`,
    });
  }
  if (!chiSquare) {
    notes.push({ code: 'no-cells', text: `${n} counts are too few for two cells: there is no χ².` });
  }
  const [best] = families;
  const own = families.find((one) => one.family === family);
  if (best && own && own.difference > 2) {
    const { title: better } = familyByName(best.family);
    const text = `By AICc, ${articleOf(title(result))} ${title(result)} distribution has ${supportWords(own.difference)} beside ${articleOf(better)} ${better} one (Δ ${briefly(own.difference, 2)}).`;
    notes.push({ code: 'better-family', text });
  }
  if (dispersion?.pSimulated && dispersion.pSimulated.pValue < alpha && dispersion.statistic < dispersion.df) {
    notes.push({
      code: 'underdispersed',
      text: 'The counts vary less than they would by chance alone: are they rounded, averaged, or kept to a quota?',
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
    meaning: 'All events over all counts.',
    formula: 'Σx/n',
    text: ({ mean }) => briefly(mean, 4),
    note: ({ meanIntervals: { exact, t }, confidence }) =>
      `${formatPercent(confidence)}: ${interval((exact ?? t)!)}${exact ? ', exact' : ', by t'}`,
  },
  {
    key: 'meanByT',
    name: 'interval by t',
    meaning: 'An interval of the mean from the spread that the counts have, whatever their family.',
    formula: 'mean ± t · sd/√n',
    use: 'Where the dispersion is not that of Poisson counts: the exact interval leans on it.',
    text: ({ meanIntervals: { exact, t } }) => (exact && t ? interval(t) : null),
  },
  {
    key: 'rate',
    name: 'rate',
    meaning: 'All successes over all trials.',
    formula: 'Σx/Σm, interval of Clopper and Pearson (1934)',
    text: ({ rate }) => rate && formatPercentOf(rate.value),
    note: ({ rate, confidence }) =>
      rate
        ? `${formatPercent(confidence)}: ${formatPercentOf(rate.interval.lower, undefined, 3)} – ${formatPercentOf(rate.interval.upper, undefined, 3)}`
        : '',
  },
  {
    key: 'varianceRatio',
    name: 'variance over mean',
    meaning: 'About 1 for Poisson counts; more where events come in clusters or items differ.',
    formula: 's²/mean',
    text: ({ varianceRatio }) => formatFigure(varianceRatio, 'statistic'),
  },
  {
    key: 'chiSquare',
    name: 'χ² of the cells',
    meaning: 'How far what was counted lies from what is expected, over the pooled cells.',
    formula: 'Σ (observed − expected)²/expected (Pearson 1900)',
    text: ({ chiSquare }) => chiSquare && formatFigure(chiSquare.statistic, 'statistic'),
    note: ({ chiSquare, pooled }) => (chiSquare ? `${pooled.length} cells, df ${Math.max(0, chiSquare.df)}` : ''),
  },
  {
    key: 'chiSquareP',
    name: 'its p, simulated',
    meaning: 'How often samples of the distribution, fitted anew, are as far off.',
    formula: '(b + 1)/(B + 1)',
    use: 'The one to quote.',
    text: ({ chiSquare, alpha }) => pWords(chiSquare, alpha, 'pSimulated'),
    note: ({ chiSquare, alpha }) => simulatedNote(chiSquare, alpha),
  },
  {
    key: 'chiSquareFormula',
    name: 'its p, by formula',
    meaning: 'By the χ² curve; only where cells expect enough (Cochran 1954).',
    formula: 'χ² with cells − 1 − parameters degrees of freedom',
    text: ({ chiSquare, alpha }) => pWords(chiSquare, alpha, 'pAsymptotic'),
  },
  {
    key: 'dispersion',
    name: 'dispersion D',
    meaning: 'How far the counts vary beside what their family lets them: about n − 1 where it holds.',
    formula: 'Poisson Σ(x − mean)²/mean; binomial Σ(x − mp)²/(mp(1 − p)) (Fisher 1950)',
    text: ({ dispersion }) => dispersion && formatFigure(dispersion.statistic, 'statistic'),
    note: ({ dispersion }) => (dispersion ? `n − 1 is ${groupThousands(dispersion.df)}` : ''),
  },
  {
    key: 'dispersionP',
    name: 'its p, simulated',
    meaning: 'Two-sided, of Poisson counts with the same sum: exact whatever the mean.',
    formula: 'twice the smaller tail',
    text: ({ dispersion, alpha }) => pWords(dispersion, alpha, 'pSimulated'),
    note: ({ dispersion, alpha }) => simulatedNote(dispersion, alpha),
  },
  {
    key: 'zeros',
    name: 'zeros',
    meaning: 'Counts of 0, beside what the distribution expects.',
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
