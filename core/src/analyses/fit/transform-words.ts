import { simulatedNotes } from '../../road/simulated-notes.js';
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
import { plural } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords } from '../../road/cautions.js';
import type { Explained, FoundFigure } from '../../road/figure.js';
import type { TransformationName } from '../../transform/transformation.js';
import { transformationWords } from '../../transform/words.js';
import type { OutsideShare, TransformResult, TransformSide } from './transform-result.js';

/** What a convenient power does, in a word. */
const PLAIN_POWERS: Record<string, string> = {
  '-1': 'the reciprocal',
  '-0.5': 'one over the square root',
  '0': 'the logarithm',
  '0.5': 'the square root',
  '1': 'no transformation',
  '2': 'the square',
};

/** "Box–Cox with lambda 0 (the logarithm)". */
export function transformWords({ by, lambda }: Pick<TransformResult, 'by' | 'lambda'>): string {
  const used = lambda?.used ?? null;
  const words = transformationWords(by, used === null ? null : Number(used.toPrecision(3)));
  const plain = by === 'box-cox' && used !== null ? PLAIN_POWERS[String(used)] : undefined;
  if (by !== 'box-cox' && by !== 'yeo-johnson' && by !== 'normal-scores') return `the ${words}`;
  return plain ? `${words} (${plain})` : words;
}

type Outcome = 'open' | 'no-evidence' | 'rounding' | 'evidence';

function outcomeOf({ pSimulated, pResolution }: TransformSide, alpha: number): Outcome {
  if (!pSimulated) return 'open';
  if (pSimulated.pValue >= alpha) return 'no-evidence';
  return pResolution && pResolution.pValue >= alpha ? 'rounding' : 'evidence';
}

const OUTCOMES: Record<Exclude<Outcome, 'open'>, Piece[]> = {
  'no-evidence': [
    { text: 'there is ' },
    { text: 'no evidence', strong: true, code: 'no-evidence' } as const,
    { text: ' against a normal distribution ' },
  ],
  rounding: [
    { text: 'rounding alone explains the departure', strong: true, code: 'no-evidence' } as const,
    { text: ' from a normal distribution ' },
  ],
  evidence: [
    { text: 'the readings ' },
    { text: 'still depart', strong: true, code: 'evidence' } as const,
    { text: ' from a normal distribution ' },
  ],
};

const statisticWords = ({ statistic }: TransformSide) => `A² = ${formatFigure(statistic, 'statistic')}`;

/** Whether readings are normal once they are transformed: never that they are. */
export function transformFinding(result: TransformResult): Piece[] {
  const { before, after, alpha, by } = result;
  const own = (side: TransformSide) =>
    side.pSimulated ? `${statisticWords(side)}, ${equalsP(side.pSimulated.pValue, alpha)}` : statisticWords(side);
  const measured = `Before: ${own(before)}`;
  if (by === 'normal-scores') {
    const lead = 'Normal scores are normal ';
    return [
      { text: lead },
      { text: 'by construction', strong: true, code: 'no-evidence' } as const,
      { text: `, for any readings. ${measured}.` },
    ];
  }
  const outcome = outcomeOf(after, alpha);
  const lead = `After transformation by ${transformWords(result)}, `;
  if (outcome === 'open')
    return [{ text: `${lead}${statisticWords(after)}. ${measured}. The p-values are being simulated.` }];
  const depart =
    outcome === 'evidence' && outcomeOf(before, alpha) === 'no-evidence'
      ? [
          { text: 'the readings ' },
          { text: 'depart', strong: true, code: 'evidence' } as const,
          { text: ' from a normal distribution, as they did not before ' },
        ]
      : OUTCOMES[outcome];
  return [{ text: lead }, ...depart, { text: `(${own(after)}${levelWords(alpha)}). ${measured}.` }];
}

const short = (x: number) => formatValue(Number(x.toPrecision(3)));

function lambdaNotes({ lambda, before, alpha }: TransformResult): Note[] {
  const found = lambda?.found;
  if (!lambda || !found) return [];
  const notes: Note[] = [];
  const [low, high] = found.interval;
  const at = formatPercent(found.confidence);
  if (lambda.choice === 'convenient' && found.convenient === null) {
    const text = `The maximum likelihood lambda is used, because none of −1, −½, 0, ½, 1 and 2 lies within the interval of lambda.`;
    notes.push({ code: 'none-convenient', text });
  }
  if ((low ?? -Infinity) <= 1 && 1 <= (high ?? Infinity) && outcomeOf(before, alpha) !== 'no-evidence') {
    const text = `The transformation hardly helps: the ${at} interval of lambda contains 1, which means no transformation.`;
    notes.push({ code: 'lambda-one', text });
  }
  if (low === null || high === null) {
    const text = `The interval of lambda has no end, because the readings differ too little for a power transformation to change their shape.`;
    notes.push({ code: 'lambda-open', text });
  }
  return notes;
}

/** Below this ratio of maximum to minimum no power changes the shape much. */
const SHORT_RANGE = 2;

function rangeNote({ readings, by, lambda }: TransformResult): Note[] {
  let [least, greatest] = [Infinity, -Infinity];
  for (const x of readings) [least, greatest] = [Math.min(least, x), Math.max(greatest, x)];
  if (by === 'normal-scores' || by === 'yeo-johnson' || lambda?.used === 1 || !(least > 0)) return [];
  if (greatest / least >= SHORT_RANGE) return [];
  const text = `The maximum is only ${short(greatest / least)} times the minimum, so a power transformation changes the shape very little.`;
  return [{ code: 'short-range', text }];
}

function limitNotes({ before, after, by, outside }: TransformResult): Note[] {
  const lost = (['lower', 'target', 'upper'] as const).filter((side) => before.bounds[side] !== null);
  const kept = Object.values(after.bounds).filter((bound) => bound !== null).length;
  const notes: Note[] = [];
  if (kept < lost.length) {
    const text =
      by === 'normal-scores'
        ? 'Limits and target have no normal score, because only readings have one.'
        : 'A limit or target has no transformed value, because the transformation is not defined there.';
    notes.push({ code: 'limit-beyond', text });
  }
  const [own, best] = [outside?.transformed?.share, outside?.best?.share];
  if (own !== undefined && best !== undefined && Math.max(own, best) > 1e-12) {
    const times = Math.max(own, best) / Math.max(Math.min(own, best), 1e-300);
    if (times > 2) {
      const said = times > 1e6 ? 'more than 1 000 000' : short(Number(times.toPrecision(2)));
      const text = `The proportion outside the limits is uncertain: the two distributions differ by a factor of ${said}, and the readings cannot decide between them in the tails.`;
      notes.push({ code: 'shares-differ', text });
    }
  }
  return notes;
}

/** What a careful colleague would add. */
export function transformNotes(result: TransformResult): Note[] {
  const { by, alpha, n, before, after } = result;
  const notes: Note[] = [...levelNote(alpha)];
  if (by === 'normal-scores') {
    const text = 'Normal scores depend on the ranks alone. Limits and new readings have none.';
    return [...notes, { code: 'by-construction', text }];
  }
  if (outcomeOf(before, alpha) === 'no-evidence') {
    const text = 'A transformation may not be needed: there is no evidence against a normal distribution before it.';
    notes.push({ code: 'not-needed', text });
  }
  notes.push(...lambdaNotes(result), ...rangeNote(result));
  if (by === 'yeo-johnson') {
    const text = 'The result depends on the unit, because Yeo–Johnson adds 1 to the readings.';
    notes.push({ code: 'unit-matters', text });
  }
  if (n < 20) {
    const text = `With ${plural(n, 'reading')}, only gross departures are detected. “No evidence” says little here.`;
    notes.push({ code: 'small-n', text });
  }
  return [...notes, ...limitNotes(result), ...simulatedNotes(after.pSimulated, alpha)];
}

const LAMBDA_CHOICES = { convenient: 'rounded', likeliest: 'maximum likelihood', given: 'given' } as const;

/** The two scales, side by side. */
export const TRANSFORM_COLUMNS = ['before', 'after'] as const;

interface SideRow extends Explained {
  text(side: TransformSide, resolution: number | null, alpha: number): string;
}

const shape = (value: number | null) => (value === null ? '–' : formatFigure(value, 'statistic'));
const SIDE_ROWS: readonly SideRow[] = [
  {
    ...{ key: 'mean', name: 'mean', meaning: 'The arithmetic mean.', formula: 'Σx/n' },
    text: ({ mean }, resolution) => formatFigure(mean, 'location', resolution),
  },
  {
    ...{ key: 'sd', name: 'SD', meaning: 'The standard deviation, divisor n − 1.', formula: '√(Σ(x − mean)²/(n − 1))' },
    text: ({ sd }, resolution) => formatFigure(sd, 'spread', resolution),
  },
  {
    ...{
      key: 'skewness',
      name: 'skewness',
      meaning: 'About 0 for a normal distribution, above 0 with a long right tail.',
    },
    formula: 'G₁ = g₁ √(n(n − 1))/(n − 2)',
    text: ({ skewness }) => shape(skewness),
  },
  {
    ...{
      key: 'kurtosis',
      name: 'excess kurtosis',
      meaning: 'About 0 for a normal distribution, above 0 with heavy tails.',
    },
    formula: 'G₂',
    text: ({ kurtosis }) => shape(kurtosis),
  },
  {
    ...{
      key: 'a2',
      name: 'A²',
      meaning: 'The Anderson–Darling distance from a normal distribution, with most weight on the tails.',
    },
    formula: 'Anderson and Darling (1954)',
    text: ({ statistic }) => formatFigure(statistic, 'statistic'),
  },
  {
    ...{ key: 'p', name: 'p', formula: '(b + 1)/(B + 1)' },
    meaning:
      'The probability of an A² at least this large if the transformed population is normal; lambda is estimated again in each simulated sample.',
    text: ({ pSimulated }, _, alpha) => (pSimulated ? formatP(pSimulated.pValue, alpha) : '…'),
  },
  {
    ...{ key: 'pRounded', name: 'p, rounding allowed for', formula: '(b + 1)/(B + 1)' },
    meaning: 'The same with samples rounded like the readings.',
    text: ({ pResolution }, _, alpha) => (pResolution ? formatP(pResolution.pValue, alpha) : '–'),
  },
];

export function transformFigures({ before, after, resolution, alpha, by }: TransformResult): FoundFigure[] {
  const rounded = before.pResolution !== null || after.pResolution !== null;
  const samples = before.pSimulated ? `${groupThousands(before.pSimulated.replicates)} samples` : '';
  return SIDE_ROWS.filter(({ key }) => key !== 'pRounded' || rounded).map(({ text, ...explained }) => ({
    ...explained,
    note: explained.key === 'p' ? samples : '',
    // A test of what is normal by construction says nothing.
    texts: [
      text(before, resolution, alpha),
      explained.key === 'p' && by === 'normal-scores' ? '–' : text(after, null, alpha),
    ],
  }));
}

/** What the readings say of λ, and the middle of the transformed readings turned back. */
export function lambdaFigures({ lambda, middle, resolution, unit }: TransformResult): FoundFigure[] {
  const one = (key: string, name: string, meaning: string, formula: string, text: string, note = ''): FoundFigure => ({
    ...{ key, name, meaning, formula, note, texts: [text] },
  });
  const found = lambda?.found;
  const end = (bound: number | null) => (bound === null ? 'open' : short(bound));
  const back =
    middle === null
      ? []
      : [
          one(
            'middle',
            'back-transformed mean',
            'The mean of the transformed readings in the original unit. It estimates the median, not the mean, of the readings.',
            'f⁻¹(mean of f(x))',
            `${formatFigure(middle, 'location', resolution)}${unit ? `\u00a0${unit}` : ''}`,
          ),
        ];
  if (!lambda) return back;
  const likeliest = found
    ? [
        one(
          'likeliest',
          'maximum likelihood lambda',
          'The lambda with the largest likelihood.',
          'maximum of the profile likelihood (Box and Cox 1964)',
          short(found.likeliest),
          `${formatPercent(found.confidence)}: ${end(found.interval[0])} – ${end(found.interval[1])}`,
        ),
      ]
    : [];
  return [
    one(
      'lambda',
      'lambda',
      'The power used.',
      '(x^λ − 1)/λ',
      short(lambda.used),
      lambda.choice === 'convenient' && found?.convenient === null
        ? 'maximum likelihood'
        : LAMBDA_CHOICES[lambda.choice],
    ),
    ...likeliest,
    ...back,
  ];
}

/** Shares outside the limits: counted and expected. */
export function outsideFigures({ outside, n }: TransformResult): FoundFigure[] {
  if (!outside) return [];
  const share = (x: number) => formatPercentOf(x, 1 - x);
  const { counted, transformed, best } = outside;
  const expected = (key: string, name: string, of: OutsideShare, meaning: string): FoundFigure => ({
    ...{ key, name, meaning, formula: 'F(lower limit) + 1 − F(upper limit)', texts: [share(of.share)] },
    note: of.interval ? `95\u00a0%: ${share(of.interval.lower)} – ${share(of.interval.upper)}` : '',
    use: 'Use it only if plot and test give no evidence against the distribution; proportions in the tails depend on it entirely.',
  });
  return [
    {
      key: 'counted',
      name: 'outside, observed',
      meaning: 'The observed proportion outside the limits.',
      formula: 'count/n',
      note: `${groupThousands(counted)} of ${groupThousands(n)}`,
      texts: [share(counted / n)],
    },
    ...(transformed
      ? [
          expected(
            'transformed',
            'outside, transformed normal',
            transformed,
            'The proportion of the transformed normal distribution outside the transformed limits, with lambda taken as known.',
          ),
        ]
      : []),
    ...(best
      ? [
          expected(
            'best',
            `outside, ${familyByName(best.family).title}`,
            best,
            'The proportion of the distribution that fits the untransformed readings best (AICc).',
          ),
        ]
      : []),
  ];
}

/** Rows, readings and what became of them. */
export function transformTable({ rows, readings, transformed, by, lambda }: TransformResult): (string | number)[][] {
  const head = transformationWords(by as TransformationName, lambda?.used ?? null);
  return [['row', 'reading', head], ...Array.from(rows, (row, i) => [row, readings[i]!, transformed[i]!])];
}
