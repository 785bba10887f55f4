import type { StudyColumn } from '@verdict/contract';

/** Marks of readings, of limits and of a target along a strip of 400, with the ends of what it shows. */
export interface Strip {
  marks: { x: number; y: number }[];
  limits: number[];
  aim: number | null;
  least: number;
  most: number;
}

/** Several hundred marks tell the eye as much as all readings. */
const ABOUT = 400;

/** The strip picture: each reading at its place, lightly stacked by row so that ties show; null without readings. */
export function stripOf(
  values: Float64Array,
  { lowerLimit, target, upperLimit }: Pick<StudyColumn, 'lowerLimit' | 'target' | 'upperLimit'>,
): Strip | null {
  if (values.length === 0) return null;
  let [first, last] = [0, 0];
  for (let i = 1; i < values.length; i++) {
    if (values[i]! < values[first]!) first = i;
    if (values[i]! > values[last]!) last = i;
  }
  const least = Math.min(values[first]!, lowerLimit ?? Infinity);
  const most = Math.max(values[last]!, upperLimit ?? -Infinity);
  // By halves: the range of the greatest readings is no double.
  const span = most / 2 - least / 2 || 1;
  const at = (value: number) => 10 + 380 * ((value / 2 - least / 2) / span);
  const every = Math.max(1, Math.floor(values.length / ABOUT));
  const shown = Array.from({ length: Math.ceil(values.length / every) }, (_, k) => k * every);
  // One at either end is never left out.
  const places = [...new Set([...shown, first, last])];
  const marks = places.map((i, k) => ({ x: at(values[i]!), y: 12 + (k % 3) * 5 }));
  const limits = [lowerLimit, upperLimit].flatMap((limit) => (limit === null ? [] : [at(limit)]));
  const aim = target !== null && target >= least && target <= most ? at(target) : null;
  return { marks, limits, aim, least, most };
}
