import { MOST_DOTS } from '../../road/piled.js';
import { formatStatistic } from '../../road/formatted.js';
import { READABLE, readable } from '../../road/statistic-settings.js';
import { z } from 'zod';
import { formatFigure, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { countArrangements, MOST_ARRANGEMENTS, smallerOf } from '../../resampling/arrangements.js';
import { arrangementAt, bootstrapReplicate, permutationReplicate } from '../../resampling/replicate.js';
import { defineAnalysis, type Note, type Piece, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { resampledChunkSize } from '../../road/kernels.js';
import { choice, whole } from '../../road/setting.js';
import type { Sample } from '../../readings/sample.js';
import { bootstrapAnalysis, bootstrapSettings, bootstrapSource, drawnAtOnce, drawsOf } from './bootstrap.js';
import { type ResampledHead } from './bootstrap-result.js';
import { permutationAnalysis, permutationSource, shuffledOf } from './permutation.js';
import { permutationSettings } from './permutation-settings.js';
import { ONE_SOURCE, oneSource, resampleSubject } from './resample-settings.js';
import type { Source } from './resample-source.js';

const by = choice(
  'by',
  'method',
  [
    { value: 'redrawing', text: 'bootstrap' },
    { value: 'shuffling', text: 'random permutation' },
    { value: 'counting', text: 'enumeration of all permutations' },
  ],
  'redrawing',
);
const number = whole(
  'number',
  'number of the replicate',
  { min: 1, max: MOST_ARRANGEMENTS },
  1,
  'The number of a replicate',
);

const request = z
  .strictObject({ ...permutationSettings, ...bootstrapSettings, by: by.schema, number: number.schema })
  .refine(oneSource, ONE_SOURCE)
  .refine(readable, READABLE);
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Show replicate ',
  number.field,
  ' of ',
  { subject: true },
  ' by ',
  by.field,
  '.',
];

/** One reading as it is, and what became of it. */
export interface ReplicateReading {
  row: number;
  value: number;
  /** Its group; of pairs the value beside. */
  group: string;
  /** How often it was drawn, its label now, its sign now, or the value that stands beside it now. */
  now: string;
  /** True where that is another than before; of a redrawn one where it was not drawn just once. */
  moved: boolean;
}

export interface ReplicateResult extends Pick<
  ResampledHead,
  'unit' | 'resolution' | 'as' | 'kind' | 'what' | 'observed'
> {
  available: true;
  by: Request['by'];
  number: number;
  statistic: number | null;
  /** The first thousand readings. */
  readings: ReplicateReading[];
  n: number;
  /** Of readings that are drawn as dots: those that there are, and those of the replicate, by group; at most 200 each. */
  dots: { name: string; original: number[]; replicate: number[] }[];
  notes: Note[];
}

const MOST_LISTED = 1_000;

const byRow = (readings: ReplicateReading[]) => readings.sort((a, b) => a.row - b.row).slice(0, MOST_LISTED);
const dotsOf = (values: ArrayLike<number>) => {
  const step = Math.max(1, Math.ceil(values.length / MOST_DOTS));
  return Array.from(values).filter((_, i) => i % step === 0);
};
const finite = (value: number) => (Number.isFinite(value) ? value : null);
type Shown = Pick<ReplicateResult, 'statistic' | 'readings' | 'n' | 'dots'>;

function redrawn(source: Source, settings: Request): Shown {
  const { groups, rows, names } = source;
  const input = drawsOf(source, settings);
  const chunkSize = resampledChunkSize(drawnAtOnce(source, settings.times));
  const { picks, values, statistic } = bootstrapReplicate(input, { ...settings, chunkSize });
  const inPairs = rows.length === 2 && rows[0] === rows[1];
  const columns = inPairs ? groups.slice(0, 1) : groups;
  const readings = columns.flatMap((own, g) => {
    const times = new Int32Array(own.length);
    for (const place of picks[g]!) times[place]!++;
    return Array.from(own, (value, i): ReplicateReading => ({
      ...{ row: rows[g]![i] ?? i + 1, value, moved: times[i] !== 1 },
      group: inPairs ? formatFigure(groups[1]![i]!, 'reading', source.head.resolution) : names[g]!,
      now:
        times[i] === 0
          ? 'not drawn'
          : `drawn ${times[i] === 1 ? 'once' : times[i] === 2 ? 'twice' : `${times[i]} times`}`,
    }));
  });
  return {
    ...{ statistic: finite(statistic), readings: byRow(readings), n: readings.length },
    dots: groups.map((own, g) => ({ name: names[g]!, original: dotsOf(own), replicate: dotsOf(values[g]!) })),
  };
}

/** All readings of labels in one rising row, each with its row and its group. */
function pooledOf({ groups, rows }: Source): { value: number; row: number; group: number }[] {
  const all = groups.flatMap((values, group) =>
    Array.from(values, (value, i) => ({ value, row: rows[group]![i] ?? i + 1, group })),
  );
  return all.sort((a, b) => a.value - b.value);
}

function dealt(source: Source, at: Int32Array): Omit<Shown, 'statistic'> {
  const pooled = pooledOf(source);
  const { names, groups } = source;
  const small = smallerOf(groups.map(({ length }) => length));
  const label = groups.length > 2 ? at : new Int32Array(pooled.length).fill(1 - small);
  if (groups.length === 2) for (const place of at) label[place] = small;
  const readings = pooled.map(({ value, row, group }, i): ReplicateReading => {
    const now = label[i]!;
    return { row, value, group: names[group]!, now: names[now]!, moved: now !== group };
  });
  const valuesIn = (g: number) => pooled.filter((_, i) => label[i] === g).map(({ value }) => value);
  return {
    ...{ readings: byRow(readings), n: readings.length },
    dots: groups.map((own, g) => ({ name: names[g]!, original: dotsOf(own), replicate: dotsOf(valuesIn(g)) })),
  };
}

function turned({ groups, rows, names }: Source, centre: number, at: Int32Array): Omit<Shown, 'statistic'> {
  const own = groups[0]!;
  const now = own.map((value, i) => centre + (value - centre) * (1 - 2 * at[i]!));
  const readings = Array.from(own, (value, i): ReplicateReading => ({
    ...{ row: rows[0]![i]!, value, group: value < centre ? 'below' : value > centre ? 'above' : 'at it' },
    ...{
      now: now[i]! < centre ? 'below' : now[i]! > centre ? 'above' : 'at it',
      moved: at[i] === 1 && value !== centre,
    },
  }));
  return {
    ...{ readings: byRow(readings), n: readings.length },
    dots: [{ name: names[0]!, original: dotsOf(own), replicate: dotsOf(now) }],
  };
}

function paired({ groups, rows, names, head }: Source, at: Int32Array): Omit<Shown, 'statistic'> {
  const [x, y] = groups as [Float64Array, Float64Array];
  const told = (value: number) => formatFigure(value, 'reading', head.resolution);
  const readings = Array.from(x, (value, i): ReplicateReading => ({
    ...{ row: rows[0]![i]!, value, group: told(y[i]!), now: told(y[at[i]!]!), moved: y[at[i]!] !== y[i] },
  }));
  const moved = Float64Array.from(at, (place) => y[place]!);
  return {
    ...{ readings: byRow(readings), n: readings.length },
    dots: [
      { name: names[0]!, original: dotsOf(x), replicate: dotsOf(x) },
      { name: names[1]!, original: dotsOf(y), replicate: dotsOf(moved) },
    ],
  };
}

function shuffled(source: Source, settings: Request): Shown | string {
  const input = shuffledOf(source, settings);
  const all = countArrangements(input.arranged);
  if (settings.by === 'counting' && settings.number > all)
    return `There are only ${plural(all, 'permutation')}. Choose a number from 1 to ${groupThousands(all)}.`;
  if (settings.by === 'counting' && all > MOST_ARRANGEMENTS)
    return 'There are too many permutations to enumerate. Choose a random permutation.';
  const chunkSize = resampledChunkSize(source.head.n);
  const { at, statistic: found } =
    settings.by === 'counting'
      ? arrangementAt(input, settings.number)
      : permutationReplicate(input, { ...settings, chunkSize });
  const { claimed: centre = 0 } = settings;
  const { design } = input.arranged;
  const shown =
    design === 'labels' ? dealt(source, at) : design === 'signs' ? turned(source, centre, at) : paired(source, at);
  return { ...shown, statistic: finite(found + (design === 'signs' ? centre : 0)) };
}

function resultOf(settings: Request, sample: Sample, source: Source) {
  const shown = settings.by === 'redrawing' ? redrawn(source, settings) : shuffled(source, settings);
  if (typeof shown === 'string') return unavailable(sample, shown);
  const { head, scale, kind, what, observed } = source;
  const { unit, resolution, notes } = head;
  const result: ReplicateResult = {
    ...{ available: true, unit, resolution, as: scale.as, kind, what, observed },
    ...{ by: settings.by, number: settings.number, ...shown, notes },
  };
  return result;
}

const CALLED = { redrawing: 'Replicate', shuffling: 'Permutation', counting: 'Permutation' };

export function replicateFinding(result: ReplicateResult): Piece[] {
  const { by: how, number: which, statistic, readings, n } = result;
  const name = `${CALLED[how]} ${groupThousands(which)}: `;
  if (statistic === null) return [{ text: `${name}the statistic cannot be calculated.` }];
  const moved = readings.filter((one) => one.moved).length;
  const listed = readings.length < n ? ` of the first ${groupThousands(readings.length)}` : '';
  const tail =
    how === 'redrawing'
      ? `; ${readings.filter(({ now }) => now === 'not drawn').length} of ${groupThousands(readings.length)} readings were not drawn`
      : `; ${groupThousands(moved)}${listed} readings changed place`;
  return [
    { text: name },
    { text: formatStatistic(statistic, result), strong: true, code: 'figure' },
    { text: `${tail}.` },
  ];
}

/** One replicate, reading by reading: the same for everybody with this seed. */
export const replicateAnalysis = defineAnalysis<Request, ReplicateResult>({
  id: 'replicate',
  version: 1,
  name: 'Single replicate',
  title: 'a single bootstrap replicate or permutation, reading by reading',
  needsReadings: false,
  takesLabels: true,
  request,
  method,
  subject: resampleSubject,
  resolve: (settings, sample) => {
    const { number: which, by: how } = settings;
    const own =
      how === 'redrawing' ? bootstrapAnalysis.resolve(settings, sample) : permutationAnalysis.resolve(settings, sample);
    return { ...settings, first: own.first, second: own.second, by: how, number: which };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const source =
      settings.by === 'redrawing' ? bootstrapSource(sample, settings) : permutationSource(sample, settings);
    return 'available' in source ? source : resultOf(settings, sample, source);
  },
  finding: replicateFinding,
});
