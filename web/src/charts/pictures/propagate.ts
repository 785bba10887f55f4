import { formatResult, type PropagateResult } from '@verdict/core/analyses';
import { formatPercent, formatValue } from '@verdict/core/format';
import type { Mark, Tone } from '../marks.js';
import type { Hit, Panels } from '../picture.js';
import { AIR, countTicks, NO_TAILS, piled, type PiledUp } from './piles.js';

interface Row {
  name: string;
  lower: number;
  upper: number;
  tone: Tone;
}

/** The intervals that stand over the trials. */
function rowsOf({ interval, shortest, firstOrder, confidence }: PropagateResult): Row[] {
  const percent = formatPercent(confidence);
  const rows: Row[] = [];
  if (interval) rows.push({ name: percent, lower: interval.lower!, upper: interval.upper!, tone: 'green' });
  if (shortest) rows.push({ name: 'shortest interval', lower: shortest.lower!, upper: shortest.upper!, tone: 'ink' });
  if (interval && firstOrder)
    rows.push({ name: 'first order', lower: firstOrder.lower, upper: firstOrder.upper, tone: 'ochre' });
  return rows;
}

/** The normal curve of the first order, as high as its trials would be. */
function firstOrderCurve({ firstOrder, frame, trials, undefined: none }: PropagateResult): Mark[] {
  if (!firstOrder || !frame || !(firstOrder.sd > 0)) return [];
  const { estimate, sd } = firstOrder;
  const x = Array.from({ length: 121 }, (_, i) => estimate + sd * (i / 15 - 4));
  const height = ((trials - none) * frame.width) / (sd * Math.sqrt(2 * Math.PI));
  const y = x.map((at) => height * Math.exp(-0.5 * ((at - estimate) / sd) ** 2));
  return [{ kind: 'line', x, y, tone: 'ochre', width: 1.6, dash: [6, 4] }];
}

type Entry = NonNullable<Panels['legend']>[number];
const TRIALS: Entry = { words: 'trials', tone: 'soft', sample: 'bars' };
const FIRST_ORDER: Entry = { words: 'first-order approximation (normal)', tone: 'ochre', dash: [6, 4] };

/** The results of all trials, their intervals above them, the first order beside. */
export function propagatePanels(result: PropagateResult): Panels | null {
  const { frame, trials, mean, outside, formula } = result;
  if (!frame || trials === 0) return null;
  const told = (value: number) => formatResult(value, result);
  const of: PiledUp = { ...result, told };
  const found = piled(of, NO_TAILS, 'trial');
  const rows = rowsOf(result);
  const pitch = found.top * 0.1;
  const levelOf = (i: number) => found.top * 1.1 + (rows.length - 1 - i) * pitch;
  const limits = outside ? [outside.lowerLimit, outside.upperLimit].filter((x) => x !== null) : [];
  // The few that lie far out are in the picture, but do not press the others together.
  const spread = rows.length > 0 ? rows[0]!.upper - rows[0]!.lower : found.to - found.from;
  const middle = mean ?? frame.centre;
  const from = Math.max(found.from, middle - 1.4 * spread);
  const to = Math.min(found.to, middle + 1.4 * spread);
  const air = (to - from || Math.abs(middle) || 1) * AIR;
  const cap = (x: number, y: number, tone: Tone): Mark => ({
    ...{ kind: 'line', x: [x, x], y: [y - pitch * 0.28, y + pitch * 0.28], tone, width: 1.6 },
  });
  return {
    x: { from: from - air, to: to + air, title: formula },
    y: {
      ...{ from: 0, to: (rows.length > 0 ? levelOf(0) : found.top) + pitch, title: 'trials' },
      ticks: [...countTicks(found.top), ...rows.map(({ name }, i) => ({ at: levelOf(i), words: name }))],
    },
    panels: [
      {
        name: '',
        marks: [
          ...found.marks,
          ...firstOrderCurve(result),
          ...rows.flatMap(({ lower, upper, tone }, i): Mark[] => [
            { kind: 'line', x: [lower, upper], y: [levelOf(i), levelOf(i)], tone, width: i === 0 ? 3 : 1.6 },
            cap(lower, levelOf(i), tone),
            cap(upper, levelOf(i), tone),
          ]),
          ...(mean === null
            ? []
            : [{ kind: 'rule', across: 'x', at: mean, tone: 'ink', words: `mean ${told(mean)}` } as const]),
          ...limits.map((at): Mark => ({
            ...{ kind: 'rule', across: 'x', at, tone: 'ochre', dash: [6, 4], stays: true },
            words: `limit ${formatValue(at)}`,
          })),
        ],
      },
    ],
    hits: [
      ...rows.map(({ name, lower, upper }, i): Hit => {
        const centre = (lower + upper) / 2;
        const words = `${name}: ${told(lower)} to ${told(upper)}`;
        return { panel: 0, x: [centre, centre], y: [levelOf(i), levelOf(i)], words };
      }),
      ...found.hits,
    ],
    legend: result.firstOrder ? [TRIALS, FIRST_ORDER] : [TRIALS],
  };
}
