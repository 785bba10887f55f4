import {
  formatStatistic,
  type OneSampleResult,
  type PopulationResult,
  type SimulateResult,
} from '@verdict/core/analyses';
import { formatFigure, formatPercentOf, formatValue, groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Hit, Panels } from '../picture.js';
import { AIR, countTicks, countWords, dotsPiled, NO_TAILS, piled, xAxis, type PiledUp } from './piles.js';

const percent = (share: number) => formatPercentOf(share, 1 - share, 3);

/** What samples are drawn from, and over it the readings of one sample. */
export function populationPanels(result: PopulationResult, sample: OneSampleResult | null): Panels {
  const { window, curve, bars, mean, median } = result;
  const groups = sample?.groups ?? [];
  const drawn = groups.flatMap(({ values }) => values);
  const [from, to] = drawn.reduce(([a, b], x) => [Math.min(a, x), Math.max(b, x)], [window.from, window.to]);
  const air = (to - from) * AIR;
  const top = [...(curve?.y ?? []), ...bars.map(({ height }) => height)].reduce((a, b) => Math.max(a, b), 0) || 1;
  const edges = bars.length > 0 ? [bars[0]!.from, ...bars.map((bar) => bar.to)] : [];
  const marks: Mark[] =
    curve === null
      ? [{ kind: 'bars', edges, heights: bars.map(({ height }) => height), tone: 'soft' }]
      : curve.bars
        ? [{ kind: 'columns', x: curve.x, y: curve.y, filled: curve.x.map(() => false), tone: 'soft' }]
        : [
            {
              ...{ kind: 'area', fill: 'green', alpha: 0.16 },
              x: [curve.x[0]!, ...curve.x, curve.x.at(-1)!],
              y: [0, ...curve.y, 0],
            },
            { kind: 'line', x: curve.x, y: curve.y, tone: 'green', width: 1.6 },
          ];
  const pitch = top * 0.16;
  const readings = groups.flatMap(({ values, strange }, g): Mark[] => {
    const y = -pitch * (g + 0.7);
    const own = (odd: boolean, tone: Tone, filled: boolean): Mark => {
      const x = values.filter((_, i) => strange[i] === odd);
      return { kind: 'points', x, y: x.map(() => y), tone, marker: markerOf(g), radius: 4, filled };
    };
    return [own(false, groups.length > 1 ? { series: g } : 'ink', false), own(true, 'ochre', true)];
  });
  const centre = mean ?? median;
  return {
    x: { from: from - air, to: to + air, title: '' },
    y: { from: -pitch * (groups.length + 0.5), to: top * 1.25, title: '', ticks: [] },
    panels: [
      {
        name: '',
        marks: [
          ...marks,
          {
            kind: 'rule',
            across: 'x',
            at: centre,
            tone: 'ink',
            dash: [4, 3],
            words: mean === null ? 'median' : 'true mean',
          },
          ...readings,
        ],
      },
    ],
    hits: groups.flatMap(({ values, strange, name }, g): Hit[] =>
      values.map((x, i) => ({
        ...{ panel: 0, x: [x, x] as [number, number], y: [-pitch * (g + 0.7), -pitch * (g + 0.7)] as [number, number] },
        words: `reading ${i + 1}${name ? ` of the ${name}` : ''}: ${formatFigure(x, 'reading', result.resolution)}${strange[i] ? ', contaminated' : ''}`,
      })),
    ),
  };
}

/** What one sample came to. */
export interface ChosenSample {
  number: number;
  value: number | null;
}

function chosenRule(chosen: ChosenSample | null): Mark[] {
  if (!chosen || chosen.value === null) return [];
  const words = `sample ${groupThousands(chosen.number)}`;
  return [{ kind: 'rule', across: 'x', at: chosen.value, tone: 'green', dash: [2, 3], words }];
}

const asPiled = (result: SimulateResult): PiledUp => ({ ...result, told: (value) => formatStatistic(value, result) });

/** p of all samples: level where there is nothing to find; those below the level ochre. */
function pPanels(result: SimulateResult, chosen: ChosenSample | null): Panels {
  const { alpha, replicates, frame, belowAlpha } = result;
  const tails = { atMost: alpha, atLeast: Infinity };
  const asDots = result.dots.length > 0;
  const found = asDots
    ? dotsPiled(asPiled(result), tails, chosen?.number ?? null, 'sample')
    : piled(asPiled(result), tails, 'sample');
  const level = replicates * frame!.width;
  const top = Math.max(found.top, asDots ? 0 : level) * 1.15;
  const ticks = [0, 0.2, 0.4, 0.6, 0.8, 1].map((at) => ({ at, words: String(at) }));
  const below = belowAlpha ? `p below ${formatValue(alpha)}: ${percent(belowAlpha.share)}` : '';
  return {
    x: { from: -0.02, to: 1.02, title: 'p', ticks },
    y: { from: 0, to: top, title: 'samples', ticks: countTicks(top) },
    panels: [
      {
        name: '',
        marks: [
          ...found.marks,
          ...(asDots
            ? []
            : [{ kind: 'line', x: [0, 1], y: [level, level], tone: 'green', width: 1.8, dash: [6, 4] } as const]),
          { kind: 'rule', across: 'x', at: alpha, tone: 'ochre', words: `level ${formatValue(alpha)}` },
          ...chosenRule(chosen),
        ],
      },
    ],
    hits: found.hits,
    legend: [
      {
        words: below,
        tone: 'ochre',
        sample: asDots ? 'marker' : 'bars',
        ...(asDots ? { marker: 'circle' as const } : {}),
      },
      ...(asDots ? [] : [{ words: 'expected if the claim is true', tone: 'green' as const, dash: [6, 4] }]),
    ],
  };
}

/** A statistic of all samples, and the law that theory gives it. */
function statisticPanels(result: SimulateResult, chosen: ChosenSample | null): Panels {
  const { distribution, theory, truth, what, unit, as } = result;
  const asDots = result.dots.length > 0;
  const of = asPiled(result);
  const found = asDots ? dotsPiled(of, NO_TAILS, chosen?.number ?? null, 'sample') : piled(of, NO_TAILS, 'sample');
  const { values, edges } = distribution;
  const places = values ?? edges.slice(1).map((edge, i) => (edge + edges[i]!) / 2);
  const expected = theory?.expected ?? [];
  const top = expected.reduce((a, b) => Math.max(a, b), found.top);
  const law: Mark[] =
    expected.length === 0
      ? []
      : values
        ? [{ kind: 'points', x: places, y: expected, tone: 'green', marker: 'diamond', radius: 3.4, filled: true }]
        : [{ kind: 'line', x: places, y: expected, tone: 'green', width: 2 }];
  const title = `${what}${as === 'reading' && unit ? `, ${unit}` : as === 'share' ? ', as a proportion' : ''}`;
  const legend: LegendEntry[] = [
    asDots
      ? { words: 'one sample', tone: 'ink', sample: 'marker', marker: 'circle' }
      : { words: 'samples', tone: 'soft', sample: 'bars' },
    ...(law.length === 0 ? [] : [{ words: `expected: ${theory!.name}`, tone: 'green' as const }]),
  ];
  return {
    x: xAxis(of, found, [], title),
    y: { from: 0, to: top * 1.12, title: 'samples', ticks: countTicks(top) },
    panels: [
      {
        name: '',
        marks: [
          ...found.marks,
          ...law,
          ...(truth === null
            ? []
            : [
                {
                  kind: 'rule',
                  across: 'x',
                  at: truth,
                  tone: 'ink',
                  dash: [4, 3],
                  words: `true ${of.told(truth)}`,
                } as const,
              ]),
          ...chosenRule(chosen),
        ],
      },
    ],
    hits: found.hits,
    legend,
  };
}

/** The first intervals, one above the other: those that miss what is true ochre. */
function intervalPanels(result: SimulateResult, chosen: ChosenSample | null): Panels | null {
  const { firsts, truth, what, unit, as } = result;
  if (firsts.length === 0 || truth === null) return null;
  const told = (value: number) => formatStatistic(value, result);
  // A few that reach very far must not press the others together.
  const sorted = firsts.flatMap(({ lower, upper }) => [lower, upper]).sort((a, b) => a - b);
  const [low, high] = [sorted[Math.floor(sorted.length * 0.02)]!, sorted[Math.ceil(sorted.length * 0.98) - 1]!];
  const reach = (high - low || Math.abs(truth) || 1) * 0.35;
  const [from, to] = [Math.max(sorted[0]!, low - reach), Math.min(sorted.at(-1)!, high + reach)];
  const ends = [Math.min(from, truth), Math.max(to, truth)] as const;
  const air = (ends[1] - ends[0]) * AIR;
  const rows = firsts.length;
  const levelOf = (i: number) => rows - i;
  const cut = (x: number) => Math.max(ends[0] - air, Math.min(ends[1] + air, x));
  const misses = firsts.filter(({ covers }) => !covers).length;
  const step = rows > 40 ? 20 : rows > 12 ? 5 : 1;
  const ticks = firsts.flatMap((_, i) =>
    (i + 1) % step === 0 || rows <= 12 ? [{ at: levelOf(i), words: String(i + 1) }] : [],
  );
  return {
    x: { from: ends[0] - air, to: ends[1] + air, title: `${what}${as === 'reading' && unit ? `, ${unit}` : ''}` },
    y: { from: 0, to: rows + 1, title: rows === 100 ? 'the first 100 samples' : 'samples', ticks },
    panels: [
      {
        name: '',
        marks: [
          ...firsts.map(({ lower, upper, covers }, i): Mark => ({
            ...{ kind: 'line', x: [cut(lower), cut(upper)], y: [levelOf(i), levelOf(i)] },
            ...(i + 1 === chosen?.number
              ? { tone: 'green' as const, width: 4 }
              : covers
                ? { tone: 'soft' as const, width: rows > 40 ? 1.1 : 1.8 }
                : { tone: 'ochre' as const, width: 2.4 }),
          })),
          { kind: 'rule', across: 'x', at: truth, tone: 'ink', words: `true ${told(truth)}` },
        ],
      },
    ],
    hits: firsts.map(({ lower, upper, covers }, i): Hit => ({
      ...{ panel: 0, x: [cut(lower), cut(upper)], y: [levelOf(i) - 0.4, levelOf(i) + 0.4], bar: i + 1 },
      words: `sample ${i + 1}: ${told(lower)} to ${told(upper)}, ${covers ? 'covers' : 'misses'} ${told(truth)}`,
    })),
    legend: [
      { words: 'contains the true value', tone: 'soft' },
      { words: `does not contain it: ${countWords(misses, 'interval')} of these`, tone: 'ochre' },
    ],
  };
}

export function simulatePanels(result: SimulateResult, chosen: ChosenSample | null): Panels | null {
  if (result.replicates === 0) return null;
  if (result.repeated === 'interval') return intervalPanels(result, chosen);
  if (!result.frame) return null;
  return result.repeated === 'test' ? pPanels(result, chosen) : statisticPanels(result, chosen);
}
