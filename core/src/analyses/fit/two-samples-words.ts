import { simulatedNotes } from '../../road/simulated-notes.js';
import { equalsP, formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import { mainOfTwo, type ComparedSample, type TwoSamplesResult } from './two-samples-result.js';

const SYMBOLS = { 'anderson-darling': 'A²', 'kolmogorov-smirnov': 'D' } as const;

/** Whether the two come from one distribution: never that they do. */
export function twoSamplesFinding(result: TwoSamplesResult): Piece[] {
  const { samples, alpha } = result;
  const [a, b] = samples;
  const { test, statistic, pSimulated } = mainOfTwo(result);
  const figures = `${SYMBOLS[test]} = ${formatFigure(statistic, 'statistic')}`;
  const names = `${a.name} and ${b.name}`;
  if (!pSimulated) return [{ text: `${figures} between ${names}; its p-value is being simulated.` }];
  const p = `${figures}, ${equalsP(pSimulated.pValue, alpha)}, level ${alpha}`;
  return pSimulated.pValue < alpha
    ? [
        { text: `${names} ` },
        { text: 'come from different distributions', strong: true, code: 'evidence' },
        { text: `: ${p}.` },
      ]
    : [
        { text: 'There is ' },
        { text: 'no evidence', strong: true, code: 'no-evidence' },
        { text: ` that ${names} come from different distributions: ${p}.` },
      ];
}

/** What a careful colleague would add. */
export function twoSamplesNotes(result: TwoSamplesResult): Note[] {
  const { samples, tests, alpha, unit } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const small = samples.find(({ n }) => n < 10);
  if (small) {
    const text = `${small.name} has ${small.n} ${small.n === 1 ? 'reading' : 'readings'}: only gross differences can show.`;
    notes.push({ code: 'small-n', text });
  }
  const [a2, d] = tests;
  if (a2.pSimulated && d.pSimulated && a2.pSimulated.pValue < alpha !== d.pSimulated.pValue < alpha) {
    const [found, not] = a2.pSimulated.pValue < alpha ? ['A²', 'D'] : ['D', 'A²'];
    const text = `${found} finds a difference, ${not} does not: A² looks at the tails as well, D at the greatest distance, mostly in the middle. The finding is that of the chosen one.`;
    notes.push({ code: 'tests-differ', text });
  }
  const { pSimulated } = mainOfTwo(result);
  if (pSimulated && pSimulated.pValue < alpha) {
    const text = `What differs is on the plot: marks beside the line are another centre, a steeper or flatter row another spread, a bend another shape.`;
    notes.push({ code: 'what-differs', text });
  }
  if (unit === '' && result.by === null && samples[0].name !== samples[1].name) {
    notes.push({
      code: 'units',
      text: 'The two columns have no common unit: their numbers are compared as they stand.',
    });
  }
  return [...notes, ...simulatedNotes(pSimulated, alpha)];
}

/** The figures of both, side by side. */
export function twoSamplesFigures({ samples, resolution }: TwoSamplesResult): FoundFigure[] {
  const row = (
    key: string,
    name: string,
    meaning: string,
    formula: string,
    of: (sample: ComparedSample) => string,
  ): FoundFigure => ({ key, name, meaning, formula, note: '', texts: samples.map(of) });
  const location = (x: number) => formatFigure(x, 'location', resolution);
  return [
    row('n', 'readings', 'How many there are of each; they need not be equal.', 'n', ({ n }) => groupThousands(n)),
    row('mean', 'mean', 'The centre of gravity.', 'Σx/n', ({ mean }) => location(mean)),
    row('median', 'median', 'The middle reading.', 'half lie below', ({ median }) => location(median)),
    row('sd', 'sd', 'The spread, divisor n − 1.', '√(Σ(x − mean)²/(n − 1))', ({ sd }) =>
      sd === null ? '–' : formatFigure(sd, 'spread', resolution),
    ),
    row('min', 'least', 'The least reading.', 'min', ({ min }) => formatFigure(min, 'reading', resolution)),
    row('max', 'greatest', 'The greatest reading.', 'max', ({ max }) => formatFigure(max, 'reading', resolution)),
  ];
}

/** The tests: statistic and p. */
export const TWO_SAMPLES_COLUMNS = ['statistic', 'p'] as const;

export function twoSamplesTests({ tests, alpha }: TwoSamplesResult): FoundFigure[] {
  const said = {
    'anderson-darling': {
      name: 'A² of two samples',
      meaning: 'How far the steps of the two lie apart, the tails counting most; ties by midranks.',
      formula: 'Scholz and Stephens (1987)',
      use: 'A good choice when nothing is known of how they may differ.',
    },
    'kolmogorov-smirnov': {
      name: 'D of two samples',
      meaning: 'The greatest distance of the steps of the two.',
      formula: 'max |F₁ − F₂| (Smirnov 1939)',
      use: 'Where a shift of the middle is what is feared.',
    },
  } as const;
  return tests.map(({ test, statistic, pSimulated }) => ({
    key: test,
    ...said[test],
    note: pSimulated
      ? `${groupThousands(pSimulated.replicates)} ways: ${pSimulated.pInterval.map((p) => formatP(p, alpha)).join(' – ')}`
      : '',
    texts: [formatFigure(statistic, 'statistic'), pSimulated ? formatP(pSimulated.pValue, alpha) : '…'],
  }));
}

/** The quantiles behind the picture. */
export function twoSamplesTable({ samples, quantiles }: TwoSamplesResult): (string | number)[][] {
  const { first, second, shares } = quantiles;
  const rows = shares.map((share, i) => [share, first[i]!, second[i]!, second[i]! - first[i]!]);
  return [['share below', samples[0].name, samples[1].name, 'difference'], ...rows];
}
