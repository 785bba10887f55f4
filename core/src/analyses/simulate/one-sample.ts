import type { z } from 'zod';
import { formatP, formatValue, groupThousands } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Note } from '../../readings/note.js';
import { sampleOf } from '../../simulation/samples.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import { defineAnalysis, type Piece, type SentencePart } from '../../road/analysis.js';
import { whole } from '../../road/setting.js';
import { MOST_REPLICATES } from '../../road/settings.js';
import { bareFigure, formatInterval, formatStatistic, type Notation } from '../../road/formatted.js';
import { settled } from './asked-settings.js';
import { asSimulation, chunkSizeOf, SIMULATE, simulationShape, tableOf, tableOrders } from './simulate.js';
import { samplesOf, simulated } from './simulated.js';
import type { Simulated } from './simulated-parts.js';

const number = whole('number', 'number of the sample', { min: 1, max: MOST_REPLICATES }, 1, 'The number of a sample');
const request = asSimulation({ ...simulationShape, number: number.schema } as typeof simulationShape & {
  number: typeof number.schema;
});
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [...SIMULATE.ask, 'Show sample ', number.field, '.'];

/** One group of a sample, with its own figures. */
export interface SampleGroup {
  name: string;
  n: number;
  mean: number;
  /** Null of a single reading. */
  sd: number | null;
  /** The readings in the order drawn, at most 1 000. */
  values: number[];
  /** For each of them, whether it is one of those that are different. */
  strange: boolean[];
}

export interface OneSampleResult extends Notation {
  available: true;
  number: number;
  repeated: 'statistic' | 'test' | 'interval';
  what: string;
  groups: SampleGroup[];
  /** The figure, p, or null. */
  value: number | null;
  /** Of a test: its statistic and the letter that goes with it. */
  statistic: number | null;
  symbol: string;
  alpha: number;
  lower: number | null;
  upper: number | null;
  truth: number | null;
  /** How readings are written. */
  readings: { unit: string; resolution: number | null };
  notes: Note[];
}

const MOST_LISTED = 1_000;
const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

function groupOf(values: Float64Array, strange: Uint8Array | null, name: string): SampleGroup {
  const { n, mean, s2 } = centralMoments(values);
  const listed = Array.from(values.subarray(0, MOST_LISTED));
  return {
    ...{ name, n, mean, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) : null, values: listed },
    strange: listed.map((_, i) => strange?.[i] === 1),
  };
}

function resultOf(asked: Request, made: Simulated, table: Float64Array | null): OneSampleResult {
  const { seed, number: which, alpha, test } = asked;
  const found = sampleOf(samplesOf(made, table), { seed, number: which, chunkSize: chunkSizeOf(made) });
  const { repeated, told, what, truth, source } = made;
  const [first, second] = [found.worked[0]!, found.worked[1]!];
  const ends = repeated.what === 'interval';
  const names = found.values.length === 1 ? [''] : ['first', 'second'];
  return {
    ...{ available: true, ...told, number: which, repeated: repeated.what, what, alpha, truth },
    groups: found.values.map((values, g) => groupOf(values, found.strange[g]!, names[g]!)),
    value: ends ? null : finite(first),
    statistic: repeated.what === 'test' ? finite(second) : null,
    symbol: test === undefined ? '' : simulatedTest(test).symbol,
    ...{ lower: ends ? finite(first) : null, upper: ends ? finite(second) : null },
    readings: { unit: source.head.unit, resolution: source.head.resolution },
    notes: source.head.notes,
  };
}

export function oneSampleFinding(result: OneSampleResult): Piece[] {
  const { number: which, repeated, value, statistic, symbol, alpha, lower, upper, truth } = result;
  const name = { text: `Sample ${groupThousands(which)}: ` };
  if (repeated === 'interval') {
    if (lower === null || upper === null) return [name, { text: 'the interval cannot be calculated.' }];
    const covers = lower <= truth! && upper >= truth!;
    return [
      name,
      { text: formatInterval({ lower, upper }, result, result.kind), strong: true, code: 'figure' },
      { text: covers ? ', contains the true value.' : ', does not contain the true value.' },
    ];
  }
  if (value === null) return [name, { text: 'the statistic cannot be calculated.' }];
  if (repeated === 'statistic')
    return [name, { text: formatStatistic(value, result), strong: true, code: 'figure' }, { text: '.' }];
  const found =
    statistic === null ? '' : `${symbol} = ${bareFigure(statistic, { unit: '', resolution: null, as: 'ratio' })}, `;
  return [
    name,
    {
      text: `${found}p ${formatP(value, alpha).startsWith('<') ? '' : '= '}${formatP(value, alpha)}`,
      strong: true,
      code: 'figure',
    },
    { text: value < alpha ? `, below the significance level of ${formatValue(alpha)}.` : '.' },
  ];
}

/** One sample of a simulation, reading by reading: the same for everybody with this seed. */
export const oneSampleAnalysis = defineAnalysis<Request, OneSampleResult>({
  id: 'simulated-sample',
  version: 2,
  name: 'Single sample',
  title: 'a single simulated sample, reading by reading, with its result',
  needsReadings: false,
  request,
  method,
  subject: ({ column }) => column ?? 'a distribution',
  resolve: (asked) => settled(asked),
  *run(given, sample) {
    const asked = this.resolve(given, sample);
    const made = simulated(asked, sample);
    if ('available' in made) return made;
    const orders = tableOrders(asked, made, asked.test);
    const table = orders.length > 0 ? tableOf(yield { partial: resultOf(asked, made, null), orders }) : null;
    return resultOf(asked, made, table);
  },
  finding: oneSampleFinding,
});
