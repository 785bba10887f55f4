/** Put in where the others leave a wide gap. */
const BETWEEN = [0.2, 1, 5, 15, 35, 65, 85, 95, 99];
const PERCENTS = [0.001, 0.01, 0.1, 0.5, 2, 10, 25, 50, 75, 90, 98, 99.5, 99.9, 99.99, 99.999];

export interface ScoreRange {
  min: number;
  max: number;
}

/** How far beyond the outermost positions a plot goes, as a share of its scores. */
const AIR = 0.07;

/** The scores that a plot spans: a little beyond the outermost positions. */
export function scoreRange(scores: ArrayLike<number>): ScoreRange {
  const [first, last] = [scores[0] ?? -1, scores[scores.length - 1] ?? 1];
  const air = (last - first) * AIR || 1;
  return { min: first - air, max: last + air };
}

/** The least distance of two ticks, as a share of the axis. */
const CLOSEST = 0.042;
/** Intermediate ticks need this multiple of the room. */
const ROOMY = 1.6;

/** Percentages with a tick and their scores; from the middle outwards, fewer where labels would overlap. */
export function percentTicks(
  { min, max }: ScoreRange,
  scoreOf: (p: number, rest: number) => number,
): { percent: number; score: number }[] {
  const within = (percents: readonly number[]) =>
    percents
      .map((percent) => ({ percent, score: scoreOf(percent / 100, (100 - percent) / 100) }))
      .filter(({ score }) => score > min && score < max);
  const closest = (max - min) * CLOSEST;
  const kept: { percent: number; score: number }[] = [];
  const nearness = ({ percent }: { percent: number }) => Math.abs(percent - 50);
  const keep = (ticks: typeof kept, room: number) => {
    for (const tick of ticks.toSorted((a, b) => nearness(a) - nearness(b)))
      if (kept.every(({ score }) => Math.abs(score - tick.score) >= room)) kept.push(tick);
  };
  keep(within(PERCENTS), closest);
  keep(within(BETWEEN), ROOMY * closest);
  return kept.sort((a, b) => a.score - b.score);
}
