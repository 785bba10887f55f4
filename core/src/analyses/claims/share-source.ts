import { censoredReadings } from '../../readings/censored.js';
import { formatFigure, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import type { Note } from '../../road/analysis.js';
import { oddCount, withTrials } from '../../road/counted.js';
import { whyEmpty } from '../../road/cautions.js';

/** So many of so many, of what, and what is to be said of how they were counted. */
export interface Counted {
  count: number;
  n: number;
  /** "outside 7.7 to 8.3 mm", "chipped", "pinholes". */
  what: string;
  notes: Note[];
}

export interface ShareAsked {
  of: 'outside' | 'below' | 'above' | 'within' | 'level' | 'counts' | 'typed';
  lower?: number | undefined;
  upper?: number | undefined;
  level?: string | undefined;
  trials?: number | undefined;
}

/** Where a reading lies, as far as the question goes: −1 below, 0 within, 1 above the limits. */
const placeOf = (x: number, lower: number, upper: number) => (x < lower ? -1 : x > upper ? 1 : 0);

const COUNTS: Record<'outside' | 'below' | 'above' | 'within', (place: number) => boolean> = {
  outside: (place) => place !== 0,
  below: (place) => place < 0,
  above: (place) => place > 0,
  within: (place) => place === 0,
};

function limitWords({ of, lower, upper }: ShareAsked, { resolution, unit }: Sample): string {
  const told = (x: number) => `${formatFigure(x, 'reading', resolution)}${unit ? `\u00a0${unit}` : ''}`;
  if (of === 'below') return `below ${told(lower!)}`;
  if (of === 'above') return `above ${told(upper!)}`;
  if (lower !== undefined && upper !== undefined) return `${of} ${told(lower)} to ${told(upper)}`;
  const side =
    lower !== undefined ? (of === 'outside' ? 'below' : 'at or above') : of === 'outside' ? 'above' : 'at or below';
  return `${side} ${told((lower ?? upper)!)}`;
}

/** Readings counted against limits; those of which only a limit is known count where that settles it. */
function againstLimits(sample: Sample, asked: ShareAsked): Counted | string {
  const { of } = asked as { of: keyof typeof COUNTS };
  const lower = of === 'above' ? undefined : asked.lower;
  const upper = of === 'below' ? undefined : asked.upper;
  if (lower === undefined && upper === undefined) {
    return of === 'below' || of === 'above'
      ? `Enter the limit, or enter specification limits for ${sample.name} in Readings.`
      : `Enter the limits, or enter specification limits for ${sample.name} in Readings.`;
  }
  if (lower !== undefined && upper !== undefined && lower > upper)
    return `The upper limit ${upper} is below the lower limit ${lower}.`;
  const [low, high] = [lower ?? -Infinity, upper ?? Infinity];
  let count = 0;
  for (const x of sample.values) if (COUNTS[of](placeOf(x, low, high))) count++;
  const censored = censoredReadings(sample);
  for (const { limit, side, row } of censored) {
    // Anywhere beyond its limit: settled where all of that is on one side of the question.
    const ends = side < 0 ? [-Infinity, limit] : [limit, Infinity];
    const places = new Set(ends.map((end) => placeOf(end, low, high)));
    const settled = [...places].map((place) => COUNTS[of](place));
    const across = places.has(-1) && places.has(1);
    if (settled.some((one) => one !== settled[0]) || across) {
      return `The reading in row ${row} is only known to lie ${side < 0 ? 'below' : 'above'} ${limit}, so it cannot be counted against these limits.`;
    }
    if (settled[0]) count++;
  }
  const n = sample.values.length + censored.length;
  const notes: Note[] =
    censored.length === 0
      ? []
      : [
          {
            code: 'beyond-limit-counted',
            text: `${plural(censored.length, 'reading is', 'readings are')} known only by a detection limit. ${censored.length === 1 ? 'It is' : 'They are'} counted, because the limit is enough to decide.`,
          },
        ];
  return { count, n, what: limitWords({ of, lower, upper }, sample), notes };
}

/** So many counts altogether, out of the trials of each or of as many each time. */
function fromCounts(sample: Sample, { trials }: ShareAsked): Counted | string {
  const [own, beside] = sample.groups && sample.groups.by === null ? sample.groups.samples : [sample];
  const fault = oddCount(own!.values, own!.rows, own!.name);
  if (fault) return fault;
  if (beside) {
    const found = withTrials(own!, beside);
    if (typeof found === 'string') return found;
    const sum = (values: ArrayLike<number>) => Array.from(values).reduce((a, b) => a + b, 0);
    return { count: sum(found.counts), n: sum(found.trials!), what: own!.name, notes: found.notes };
  }
  if (trials === undefined) return 'Enter the number of trials of each count, or choose the column that holds it.';
  const over = own!.values.findIndex((x) => x > trials);
  if (over >= 0)
    return `Row ${own!.rows[over]} of ${own!.name} holds ${own!.values[over]}, more than ${groupThousands(trials)} trials.`;
  return { count: own!.values.reduce((a, b) => a + b, 0), n: trials * own!.values.length, what: own!.name, notes: [] };
}

/** How many readings of a sample are meant, and of how many; why that cannot be told. */
export function countedOf(sample: Sample, asked: ShareAsked): Counted | string {
  if (sample.values.length === 0 && !sample.censored) return whyEmpty(sample);
  if (sample.levels) {
    if (asked.level === undefined) return `Choose a label of ${sample.name}: ${sample.levels.join(', ')}.`;
    const place = sample.levels.indexOf(asked.level);
    if (place < 0) return `${sample.name} has no label “${asked.level}”. Its labels are: ${sample.levels.join(', ')}.`;
    const count = sample.values.reduce((sum, x) => sum + (x === place ? 1 : 0), 0);
    return { count, n: sample.values.length, what: asked.level, notes: [] };
  }
  if (asked.of === 'typed') return 'Type a count and its total.';
  if (asked.of === 'level')
    return `${sample.name} holds numbers, not labels. Choose a proportion within or outside limits.`;
  return asked.of === 'counts' ? fromCounts(sample, asked) : againstLimits(sample, asked);
}
