import { z } from 'zod';
import { normal } from '../../distributions/families/normal.js';
import { andersonDarling, andersonDarlingAsymptotic } from '../../goodness-of-fit/normality/anderson-darling.js';
import { departureDraw, type Departure, type Draw } from '../../goodness-of-fit/normality/departures.js';
import { plural } from '../../numeric/grammar.js';
import { centralMoments } from '../../numeric/sums.js';
import { sheetCell, type SheetCell } from '../../probability-plot/sheet-cell.js';
import { fillNormals } from '../../random/normal.js';
import { createStream } from '../../random/stream.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyNot } from '../../road/cautions.js';
import { seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

const seed = seedOf('seed of the samples');
const request = z.strictObject({ column: columnSetting, alpha: alphaSetting, seed: seed.schema });
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Compare ',
  { subject: true },
  ' with eight simulated reference samples of the same size, seed ',
  seed.field,
  '.',
];

/** A sample of known origin, or the readings, both ways. */
export interface GalleryPicture {
  plot: SheetCell;
  histogram: SheetCell;
  /** A² and its p by formula (8 readings at least): what the test would have said. */
  statistic: number;
  pValue: number | null;
}

export interface GallerySample extends GalleryPicture {
  kind: string;
  title: string;
  /** What it was drawn from, in words. */
  from: string;
}

export interface GalleryResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  /** The level at which the samples are counted that would pass. */
  alpha: number;
  subject: GalleryPicture;
  samples: GallerySample[];
  notes: Note[];
}

const KINDS: readonly { kind: string; title: string; from: string; departure: Departure | null }[] = [
  { kind: 'normal', title: 'normal', from: 'a normal distribution', departure: null },
  {
    kind: 'right-tailed',
    title: 'long right tail',
    from: 'a lognormal distribution with log SD 0.5 (skewness 1.75)',
    departure: { kind: 'lognormal', logSd: 0.5 },
  },
  {
    kind: 'left-tailed',
    title: 'long left tail',
    from: 'a mirrored lognormal distribution with log SD 0.5 (skewness −1.75)',
    departure: { kind: 'left-lognormal', logSd: 0.5 },
  },
  {
    kind: 'heavy',
    title: 'heavy tails',
    from: 'a t distribution with 3 degrees of freedom',
    departure: { kind: 'student-t', df: 3 },
  },
  {
    kind: 'light',
    title: 'light tails',
    from: 'a uniform distribution',
    departure: { kind: 'symmetric-beta', shape: 1 },
  },
  {
    kind: 'two-groups',
    title: 'two groups',
    from: 'two normal groups of equal size, 3.5 SD apart',
    departure: { kind: 'two-groups', distance: 3.5 },
  },
  {
    kind: 'rounded',
    title: 'coarsely rounded',
    from: 'a normal distribution rounded to a resolution of one SD',
    departure: { kind: 'rounded', step: 1 },
  },
  {
    kind: 'one-far',
    title: 'one outlier',
    from: 'a normal distribution with one reading moved up by 5 SD',
    departure: { kind: 'one-far', distance: 5 },
  },
];

/** A sample in rising order as plot and histogram under its own normal, with what the test says of it. */
function pictured(sorted: Float64Array, resolution: number | null): GalleryPicture {
  const { n, mean, s2 } = centralMoments(sorted);
  const sd = Math.sqrt(s2 / (n - 1));
  const law = normal.of({ mean, sd });
  const statistic = andersonDarling(sorted, mean, sd);
  return {
    plot: sheetCell('plot', sorted, law, resolution),
    histogram: sheetCell('histogram', sorted, law, resolution),
    statistic,
    pValue: andersonDarlingAsymptotic(statistic, n),
  };
}

const SPREADLESS = 100;

/** A sample of n, from the next stream on where rounding has left it without any spread. */
function drawn(n: number, draw: Draw, of: number, stream: number): Float64Array {
  const values = new Float64Array(n);
  for (let k = 0; k < SPREADLESS; k++) {
    draw(values, createStream(of, stream + k * KINDS.length));
    values.sort();
    if (values[0]! < values[n - 1]!) break;
  }
  return values;
}

/** What samples of this size look like whose origin is known: for an eye that is to judge the plot of the readings. */
export const galleryAnalysis = defineAnalysis<Request, GalleryResult>({
  id: 'gallery',
  version: 1,
  name: 'Reference samples',
  title: 'simulated samples of the same size: normal, skewed, heavy tails, two groups, rounded, with an outlier',
  request,
  method,
  resolve: (settings) => settings,
  *run(settings, sample) {
    const reason = whyNot(sample, 5, 'the comparison') ?? whyCensored(sample, 'the comparison');
    if (reason) return unavailable(sample, reason);
    const { missing, setAside, unit, resolution } = sample;
    const n = sample.values.length;
    const samples = KINDS.map(({ departure, ...told }, k): GallerySample => {
      const draw: Draw = departure ? departureDraw(departure) : (values, state) => fillNormals(state, values);
      const step = departure?.kind === 'rounded' ? departure.step : null;
      return { ...told, ...pictured(drawn(n, draw, settings.seed, k), step) };
    });
    const subject = pictured(Float64Array.from(sample.values).sort(), resolution);
    const base = { available: true, n, missing, setAside, unit, resolution, alpha: settings.alpha } as const;
    return { ...base, subject, samples, notes: leftOutNotes(sample) };
  },
  finding: ({ n, samples, alpha }) => {
    const known = samples.filter(({ kind }) => kind !== 'normal' && kind !== 'rounded');
    const lead = { text: `Reference samples of ${plural(n, 'reading')}. ` };
    if (known.some(({ pValue }) => pValue === null)) return [lead];
    const missed = known.filter(({ pValue }) => pValue! >= alpha).length;
    const said =
      missed === 0
        ? `the Anderson–Darling test detects all ${known.length} non-normal samples`
        : `the Anderson–Darling test misses ${missed} of the ${known.length} non-normal samples`;
    return [
      { text: `${lead.text}In this draw, ` },
      { text: said, strong: true, code: 'figure' },
      { text: ` (significance level ${alpha}).` },
    ];
  },
});
