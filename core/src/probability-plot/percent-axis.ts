import { normalQuantile } from '../numeric/standard-normal.js';

const PERCENTS = [0.001, 0.01, 0.1, 0.5, 2, 10, 25, 50, 75, 90, 98, 99.5, 99.9, 99.99, 99.999];

export interface ScoreRange {
  min: number;
  max: number;
}

/** The standard scores that a plot spans: a little beyond the outermost positions. */
export function scoreRange(scores: ArrayLike<number>): ScoreRange {
  const [first, last] = [scores[0] ?? 1, scores[scores.length - 1] ?? 1];
  const reach = Math.max(Math.abs(first), Math.abs(last)) + 0.35;
  return { min: -reach, max: reach };
}

/** Percentages that get a tick, with the normal score each stands at; fewer where they would collide. */
export function percentTicks({ min, max }: ScoreRange): { percent: number; score: number }[] {
  const all = PERCENTS.map((percent) => ({ percent, score: normalQuantile(percent / 100) }));
  const inside = all.filter(({ score }) => score > min && score < max);
  const closest = (max - min) / 16;
  return inside.filter(({ score }, i) => {
    const before = inside[i - 1];
    return score > 0 || !before || score - before.score > closest * 0.6;
  });
}
