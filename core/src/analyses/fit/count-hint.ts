import type { ColumnKind } from '../../readings/kind.js';
import type { Sample } from '../../readings/sample.js';

/** Above this, counts are as good as normal for most purposes, and whole numbers are often rounded measures. */
const GREATEST = 100;
const LEAST_N = 5;

/** Said where readings that are held against a curve look like counts, or are; null where they do not. */
export function countHint({ name, values }: Sample, kind: ColumnKind): string | null {
  if (values.length < LEAST_N) return null;
  const whole = values.every((x) => Number.isInteger(x) && x >= 0 && x <= GREATEST);
  if (kind === 'count') {
    return `${name} is a column of counts; a continuous distribution is at best an approximation. The page “Counts” tests Poisson and related distributions.`;
  }
  return whole
    ? `All readings of ${name} are whole numbers. If they are counts, use the page “Counts”. If they are rounded, a finer resolution would help.`
    : null;
}
