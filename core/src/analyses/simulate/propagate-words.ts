import { formatPercent, formatPercentOf, formatFigure, formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { PropagateRequest } from './propagate-settings.js';
import type { Contribution, PropagateResult } from './propagate-result.js';

/** To the second digit of the standard uncertainty. */
export function formatResult(value: number, { tolerance }: Pick<PropagateResult, 'tolerance'>): string {
  return tolerance === null ? formatValue(value) : formatFigure(value, 'reading', 2 * tolerance);
}

export function propagateFinding(result: PropagateResult): Piece[] {
  const { mean, sd, interval, confidence, formula, outside, trials } = result;
  const told = (value: number) => formatResult(value, result);
  if (sd === 0)
    return [{ text: `${formula} is constant: ` }, { text: told(mean!), strong: true, code: 'figure' }, { text: '.' }];
  if (mean === null || sd === null || !interval) return medianWords(result);
  const share = outside
    ? [{ text: ` Proportion ${limitsWords(outside)}: ${formatPercentOf(outside.share, 1 - outside.share, 3)}.` }]
    : [];
  return [
    { text: `${formula}: ` },
    { text: `${told(mean)}, standard uncertainty ${told(sd)}`, strong: true, code: 'figure' },
    {
      text: `. ${formatPercent(confidence)} coverage interval ${told(interval.lower!)} to ${told(interval.upper!)} (${plural(trials, 'trial')}).`,
    },
    ...share,
  ];
}

/** Of a result without a settled mean and sd: its median and interval, and why. */
function medianWords({ formula, median, interval, confidence, trials, unsettled }: PropagateResult): Piece[] {
  if (median === null || !interval) return [];
  const told = (value: number) => formatValue(Number(value.toPrecision(4)));
  return [
    { text: `${formula}: median ` },
    { text: told(median), strong: true, code: 'figure' },
    {
      text: `. ${formatPercent(confidence)} coverage interval ${told(interval.lower!)} to ${told(interval.upper!)} (${plural(trials, 'trial')}). Mean and standard deviation cannot be reported${unsettled ? `, because ${unsettled}` : ''}.`,
    },
  ];
}

export function limitsWords({ lowerLimit, upperLimit }: NonNullable<PropagateResult['outside']>): string {
  if (lowerLimit === null) return `above ${formatValue(upperLimit!)}`;
  if (upperLimit === null) return `below ${formatValue(lowerLimit)}`;
  return `outside ${formatValue(lowerLimit)} to ${formatValue(upperLimit)}`;
}

/** The first order beside it, and whether it may be used. */
export function firstOrderWords(result: PropagateResult): string | null {
  const { firstOrder } = result;
  const told = (value: number) => formatResult(value, result);
  if (!firstOrder) return null;
  const { estimate, sd, lower, upper, agrees } = firstOrder;
  const verdict =
    agrees === null
      ? ''
      : agrees
        ? ' It agrees with the simulation to two digits of the standard uncertainty.'
        : ' It does not agree with the simulation to two digits of the standard uncertainty. Use the simulation.';
  return `First-order approximation (GUM): ${told(estimate)}, standard uncertainty ${told(sd)}, interval ${told(lower)} to ${told(upper)}.${verdict}`;
}

export function propagateNotes(result: PropagateResult, { confidence }: PropagateRequest): Note[] {
  const notes: Note[] = confidenceNote(confidence);
  const { undefined: none, stable, trials } = result;
  if (none > 0)
    notes.push({
      code: 'undefined',
      text: `${groupThousands(none)} of ${groupThousands(trials)} trials have no result (for example a division by 0, or the square root of a negative number). They are left out.`,
    });
  if (stable === false)
    notes.push({
      code: 'not-settled',
      text: `The result is not stable: after ${plural(trials, 'trial')}, two digits of the standard uncertainty or of a limit still change. Use more trials.`,
    });
  return notes;
}

const row = (key: string, name: string, text: string, meaning: string, formula = ''): FoundFigure => ({
  ...{ key, name, texts: [text], meaning, formula, note: '' },
});

export function propagateFigures(result: PropagateResult): FoundFigure[] {
  const { mean, sd, interval, shortest, outside, confidence } = result;
  if (mean === null || sd === null || !interval || !shortest) return [];
  const told = (value: number) => formatResult(value, result);
  return [
    row('mean', 'mean', told(mean), 'The mean of all trials.', 'JCGM 101, 7.6'),
    row('sd', 'standard uncertainty', told(sd), 'The standard uncertainty of the result.', 'JCGM 101, 7.6'),
    row(
      'interval',
      formatPercent(confidence),
      `${told(interval.lower!)} to ${told(interval.upper!)}`,
      'Coverage interval with equal tails.',
      'JCGM 101, 7.7',
    ),
    row(
      'shortest',
      'shortest',
      `${told(shortest.lower!)} to ${told(shortest.upper!)}`,
      'The shortest coverage interval.',
      'JCGM 101, 5.3.4',
    ),
    ...(outside
      ? [
          row(
            'outside',
            'outside',
            `${formatPercentOf(outside.share, 1 - outside.share, 3)}`,
            `Simulation uncertainty: ${formatPercentOf(outside.lower, 1 - outside.lower, 3)} to ${formatPercentOf(outside.upper, 1 - outside.upper, 3)}.`,
            `${groupThousands(outside.count)} of ${groupThousands(outside.of)}`,
          ),
        ]
      : []),
  ];
}

export const CONTRIBUTION_COLUMNS = ['standard uncertainty', 'sensitivity', 'proportion of variance'];
const significant = (value: number) => formatValue(Number(value.toPrecision(3)));

/** The inputs, and after them a row for every correlated pair. Percentages stand only where nothing is correlated. */
export const contributionFigures = ({ contributions, covariances = [] }: PropagateResult): FoundFigure[] => [
  ...contributions.map(({ variance, ...one }) => inputFigure(one, covariances.length > 0 ? variance : null)),
  ...covariances.map(({ first, second, variance }) => ({
    ...{
      key: `${first} ${second}`,
      name: `${first} with ${second}`,
      note: '',
      formula: '2cᵢcⱼuᵢuⱼrᵢⱼ (GUM, equation 16)',
    },
    meaning: 'The contribution of the correlation to the first-order variance; it can be negative.',
    texts: ['–', '–', significant(variance)],
  })),
];

const inputFigure = (
  { name, sd, sensitivity, share, without }: Omit<Contribution, 'variance'>,
  variance: number | null,
): FoundFigure =>
  variance !== null
    ? {
        ...{ key: name, name, note: '', formula: '(cᵢuᵢ)² (GUM, equation 10)' },
        meaning: `The contribution of ${name} alone to the first-order variance.`,
        texts: [
          sd === null ? '–' : significant(sd),
          sensitivity === null ? '–' : significant(sensitivity),
          significant(variance),
        ],
      }
    : standsStill({ name, sd, sensitivity, share, without });

const standsStill = ({
  name,
  sd,
  sensitivity,
  share,
  without,
}: Pick<Contribution, 'name' | 'sd' | 'sensitivity' | 'share' | 'without'>): FoundFigure => ({
  ...{ key: name, name, note: '', formula: 'reduction of the variance if it is held constant' },
  meaning: `The proportion of the variance due to ${name}${without === null ? '' : `. Without it the standard uncertainty would be ${formatValue(Number(without.toPrecision(3)))}`}.`,
  texts: [
    sd === null ? '–' : formatValue(Number(sd.toPrecision(3))),
    sensitivity === null ? '–' : formatValue(Number(sensitivity.toPrecision(3))),
    share === null ? '–' : formatPercent(Number(share.toPrecision(3)), 3),
  ],
});

export const propagateTable = ({ distribution: { values, edges, counts } }: PropagateResult): (string | number)[][] =>
  values
    ? [['value', 'trials'], ...values.map((x, i) => [x, counts[i]!])]
    : [['from', 'to', 'trials'], ...counts.map((count, i) => [edges[i]!, edges[i + 1]!, count])];
