import { departureFacts, type PowerResult } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { formatPercentOf, formatValue, groupThousands } from '@verdict/core/format';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';

const SHARES = [0, 0.2, 0.4, 0.6, 0.8, 1];
const upwards: Axis = {
  from: 0,
  to: 1.02,
  title: 'power, % of samples',
  ticks: SHARES.map((at) => ({ at, words: String(Math.round(at * 100)) })),
};
const percent = (share: number) => formatPercentOf(share, undefined, 2);

interface Point {
  x: number;
  noticed: number;
  interval: [number, number];
  words: string;
}

/** Points with their intervals, joined. */
function curveMarks(points: readonly Point[], tone: Tone, series = 0): Mark[] {
  return [
    ...points.map(({ x, interval: [low, high] }): Mark => ({
      kind: 'line',
      x: [x, x],
      y: [low, high],
      tone,
      width: 1.4,
    })),
    { kind: 'line', x: points.map(({ x }) => x), y: points.map(({ noticed }) => noticed), tone, width: 2 },
    {
      kind: 'points',
      x: points.map(({ x }) => x),
      y: points.map(({ noticed }) => noticed),
      tone,
      marker: markerOf(series),
      radius: 4,
    },
  ];
}

const hitsOf = (points: readonly Point[]): Hit[] =>
  points.map(({ x, noticed, words }) => ({ panel: 0, x: [x, x], y: [noticed, noticed], words }));

function rules(alpha: number): Mark[] {
  const level = `level ${alpha}: false-alarm rate`;
  return [
    { kind: 'rule', across: 'y', at: 0.8, tone: 'soft', dash: [2, 4], words: '80 % power', wordsAt: 'start' },
    { kind: 'rule', across: 'y', at: alpha, tone: 'ochre', dash: [6, 4], words: level, wordsAt: 'end' },
  ];
}

/** Power for departures from small to large, in steps of equal width. */
function departurePanels(result: Extract<PowerResult, { of: 'normal' }>, kind: string): Panels | null {
  const facts = departureFacts.find((one) => one.kind === kind)!;
  const curve = result.curves.find((one) => one.kind === kind);
  if (!curve) return null;
  const points = curve.points.map(({ value, noticed, interval }, i): Point => ({
    x: i + 1,
    noticed,
    interval,
    words: `${facts.said(value)}: power ${percent(noticed)}, 95 % interval ${percent(interval[0])} to ${percent(interval[1])}`,
  }));
  const ticks = curve.points.map(({ value }, i) => ({ at: i + 1, words: formatValue(value) }));
  return {
    x: { from: 0.6, to: points.length + 0.4, title: facts.axis, ticks },
    y: upwards,
    panels: [{ name: '', marks: [...rules(result.alpha), ...curveMarks(points, 'green')] }],
    hits: hitsOf(points),
  };
}

/** Power over n, one curve for each. */
function sizePanels(
  curves: readonly { name: string; points: readonly { n: number; noticed: number; interval: [number, number] }[] }[],
  n: number,
  alpha: number,
): Panels | null {
  const sizes = curves.flatMap(({ points }) => points.map((point) => point.n));
  if (sizes.length === 0) return null;
  const [least, greatest] = [Math.min(...sizes, n), Math.max(...sizes, n)];
  const at = (size: number) => Math.log10(size);
  const series = curves.map(({ name, points }) =>
    points.map((point): Point => ({
      x: at(point.n),
      noticed: point.noticed,
      interval: point.interval,
      words: `${name}, n = ${groupThousands(point.n)}: power ${percent(point.noticed)}`,
    })),
  );
  const tone = (i: number): Tone => (curves.length === 1 ? 'green' : { series: i });
  const air = (at(greatest) - at(least) || 1) * 0.05;
  const kept = [...new Set(curves[0]!.points.map((point) => point.n))];
  return {
    x: {
      from: at(least) - air,
      to: at(greatest) + air,
      title: 'sample size',
      ticks: kept.map((size) => ({ at: at(size), words: groupThousands(size) })),
    },
    y: upwards,
    panels: [
      {
        name: '',
        marks: [
          { kind: 'rule', across: 'x', at: at(n), tone: 'ink', dash: [2, 3], words: `n = ${groupThousands(n)}` },
          ...rules(alpha),
          ...series.flatMap((points, i) => curveMarks(points, tone(i), i)),
        ],
      },
    ],
    hits: series.flatMap(hitsOf),
    ...(curves.length > 1
      ? {
          legend: curves.map(({ name }, i) => ({
            words: name,
            tone: tone(i),
            sample: 'line' as const,
            marker: markerOf(i),
          })),
        }
      : {}),
  };
}

/** What the sample could have missed: over how far it departs, or over n. */
export function powerPanels(result: PowerResult, over: 'departure' | 'n'): Panels | null {
  if (result.of === 'families') {
    const named = result.curves.map(({ family, points }) => ({ name: familyByName(family).title, points }));
    return sizePanels(named, result.n, result.alpha);
  }
  const { kind, value, over: sizes } = result.asked;
  if (over === 'departure') return departurePanels(result, kind);
  const facts = departureFacts.find((one) => one.kind === kind)!;
  return sizePanels([{ name: facts.said(value), points: sizes }], result.n, result.alpha);
}
