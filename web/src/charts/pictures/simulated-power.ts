import {
  ALONG_WORDS,
  crossingWords,
  knownShare,
  placeWords,
  type CurvesResult,
  type PlanResult,
} from '@verdict/core/analyses';
import { formatPercentOf, formatValue, groupThousands } from '@verdict/core/format';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';

const percent = (share: number) => formatPercentOf(share, 1 - share, 3);

/** Per cent from 0 up to a top, and how far apart its ticks are. */
const STEPS: Readonly<Record<number, number>> = { 10: 2, 20: 5, 40: 10, 100: 20 };
function shareAxis(title: string, top = 1): Axis {
  const most = Math.round(100 * top);
  const step = STEPS[most]!;
  const ticks = Array.from({ length: most / step + 1 }, (_, i) => ({ at: (i * step) / 100, words: String(i * step) }));
  return { from: 0, to: top * 1.02, title, ticks };
}

const levelRule = (alpha: number, wordsAt: 'start' | 'end' = 'end'): Mark => ({
  ...{ kind: 'rule', across: 'y', at: alpha, tone: 'ochre', dash: [6, 4] },
  ...{ words: `significance level ${formatValue(alpha)}`, wordsAt },
});
const powerRule = (power: number, words: string): Mark => ({
  ...{ kind: 'rule', across: 'y', at: power, tone: 'soft', dash: [2, 4], words, wordsAt: 'start' },
});

/** How far up the shares of errors reach: far below 1. */
function topOf({ curves, alpha }: CurvesResult): number {
  const most = curves.flatMap(({ points }) => points.map(({ upper, exact }) => Math.max(upper ?? 0, exact ?? 0)));
  const highest = most.reduce((a, b) => Math.max(a, b), alpha * 1.5);
  return [0.1, 0.2, 0.4].find((top) => highest <= 0.9 * top) ?? 1;
}

/** Sizes lie by their root: power is nearly straight over it. */
const placeOf = (value: number, { along }: Pick<CurvesResult, 'along'>) => (along === 'n' ? Math.sqrt(value) : value);
const toneOf = ({ curves }: CurvesResult, i: number): Tone => (curves.length === 1 ? 'green' : { series: i });

/** One test: its line, its simulated points, the band of what is known of each. */
function curveMarks(result: CurvesResult, i: number): Mark[] {
  const { points, crossing } = result.curves[i]!;
  const tone = toneOf(result, i);
  const at = (value: number) => placeOf(value, result);
  const known = points.filter((point) => knownShare(point) !== null);
  const drawn = known.filter(({ lower }) => lower !== null);
  const back = [...drawn].reverse();
  return [
    ...(crossing === null
      ? []
      : [
          {
            ...{ kind: 'line' as const, tone, width: 1.2, dash: [2, 3] },
            ...{ x: [at(crossing), at(crossing)], y: [0, result.power] },
          },
        ]),
    {
      ...{ kind: 'area', fill: tone, alpha: 0.14 },
      x: [...drawn, ...back].map(({ value }) => at(value)),
      y: [...drawn.map(({ lower }) => lower!), ...back.map(({ upper }) => upper!)],
    },
    {
      ...{ kind: 'line', tone, width: 1.8 },
      ...{ x: known.map(({ value }) => at(value)), y: known.map((point) => knownShare(point)!) },
    },
    {
      ...{ kind: 'points', tone, marker: markerOf(i), radius: 4, filled: i >= 4 },
      ...{ x: drawn.map(({ value }) => at(value)), y: drawn.map(({ share }) => share!) },
    },
  ];
}

function curveHits(result: CurvesResult): Hit[] {
  const { curves, along, unit } = result;
  return curves.flatMap(({ name, points }) =>
    points.flatMap(({ value, share, lower, upper, exact }): Hit[] => {
      const y = share ?? exact;
      if (y === null) return [];
      const known = lower === null ? '' : `, simulation uncertainty ${percent(lower)} to ${percent(upper!)}`;
      const by = exact === null ? '' : `, exact ${percent(exact)}`;
      const at = placeOf(value, result);
      const words = `${name}, ${placeWords(value, along, unit)}: ${percent(y)}${known}${by}`;
      return [{ panel: 0, x: [at, at], y: [y, y], words }];
    }),
  );
}

/** How often tests have a p below the level, along an axis; the band is the 95 % interval of each point. */
export function curvesPanels(result: CurvesResult): Panels | null {
  const { curves, along, alpha, power, unit } = result;
  const [first] = curves;
  if (!first || first.points.every((point) => knownShare(point) === null)) return null;
  const values = first.points.map(({ value }) => value);
  const places = values.map((value) => placeOf(value, result));
  const [least, greatest] = [Math.min(...places), Math.max(...places)];
  const air = (greatest - least || Math.abs(greatest) || 1) * 0.05;
  const top = topOf(result);
  const errors = curves.every(({ points }) => points.every(({ holds }) => holds));
  const tick = (value: number) => (along === 'mixedShare' ? `${formatValue(100 * value)}\u00a0%` : formatValue(value));
  return {
    x: {
      ...{ from: least - air, to: greatest + air },
      title: `${ALONG_WORDS[along]}${along === 'shift' && unit ? `, ${unit}` : ''}`,
      ticks: values.map((value, i) => ({ at: places[i]!, words: tick(value) })),
    },
    y: shareAxis(errors ? 'false-alarm rate, %' : 'p below the significance level, %', top),
    panels: [
      {
        name: '',
        marks: [
          ...(top === 1 ? [powerRule(power, formatPercentOf(power))] : []),
          levelRule(alpha, top === 1 ? 'end' : 'start'),
          ...curves.flatMap((_, i) => curveMarks(result, i)),
        ],
      },
    ],
    hits: curveHits(result),
    legend: curves.map(({ name, crossing }, i) => ({
      words: crossing === null ? name : `${name}, ${formatPercentOf(power)} at ${crossingWords(crossing, along, unit)}`,
      ...{ tone: toneOf(result, i), sample: 'line' as const, marker: markerOf(i) },
    })),
  };
}

/** Tens of per cent from a foot up. */
const tenths = (foot: number) =>
  Array.from({ length: Math.round((1 - foot) * 10) + 1 }, (_, i) => ({
    at: foot + i / 10,
    words: String(Math.round((foot + i / 10) * 100)),
  }));

/** Where all chances are far above 0, the axis begins nearer. */
function chanceAxis({ tried, wanted }: PlanResult): Axis {
  const lowest = tried.reduce((least, { lower, power }) => Math.min(least, lower ?? power), wanted);
  const foot = lowest > 0.4 ? Math.floor(lowest * 10 - 0.5) / 10 : 0;
  const axis = shareAxis('power, % of samples');
  return foot === 0 ? axis : { ...axis, from: foot, to: 1.005, ticks: tenths(foot) };
}

/** The sizes that were tried, and how often each notices. */
export function planPanels(result: PlanResult): Panels | null {
  const { tried, wanted, alpha, n, name } = result;
  if (tried.length === 0) return null;
  const places = tried.map((one) => Math.sqrt(one.n));
  const [least, greatest] = [Math.min(...places), Math.max(...places)];
  const air = (greatest - least || greatest) * 0.08;
  // Sizes next to each other have no room for words.
  const labelled = tried.filter((_, i) => i === 0 || places[i]! - places[i - 1]! > (greatest - least) * 0.045);
  const y = chanceAxis(result);
  const chances = tried.map(({ power }) => power);
  return {
    x: {
      ...{ from: least - air, to: greatest + air },
      title: result.groups === 2 ? 'readings in each group' : 'readings',
      ticks: labelled.map((one) => ({ at: Math.sqrt(one.n), words: groupThousands(one.n) })),
    },
    y,
    panels: [
      {
        name: '',
        marks: [
          powerRule(wanted, `required ${formatPercentOf(wanted)}`),
          ...(y.from > alpha ? [] : [levelRule(alpha)]),
          ...(n === null
            ? []
            : [
                {
                  ...{ kind: 'rule' as const, across: 'x' as const, at: Math.sqrt(n), tone: 'green' as const },
                  words: `n = ${groupThousands(n)}`,
                },
              ]),
          ...tried.flatMap(({ lower, upper }, i): Mark[] =>
            lower === null
              ? []
              : [{ kind: 'line', x: [places[i]!, places[i]!], y: [lower, upper!], tone: 'green', width: 1.4 }],
          ),
          { kind: 'line', x: places, y: chances, tone: 'green', width: 1.6 },
          { kind: 'points', x: places, y: chances, tone: 'green', marker: 'circle', radius: 4 },
        ],
      },
    ],
    hits: tried.map((one, i): Hit => ({
      ...{ panel: 0, x: [places[i]!, places[i]!], y: [one.power, one.power] },
      words: `${name}, n = ${groupThousands(one.n)}: ${percent(one.power)}`,
    })),
  };
}
