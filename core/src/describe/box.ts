/** A reading beyond the fences, with its row. */
export interface Outside {
  row: number;
  value: number;
  /** Beyond the outer fence. */
  far: boolean;
}

export interface Box {
  /** Limits 1.5 and 3 interquartile ranges beyond the quartiles; null where the whiskers reach to the least and greatest reading. */
  fences: { inner: [number, number]; outer: [number, number] } | null;
  /** The furthest readings inside the inner fences, or least and greatest. */
  whiskers: [number, number];
  /** The readings outside the inner fences, the furthest first, at most 500. */
  outside: Outside[];
  outsideCount: number;
  farCount: number;
}

export type Whiskers = 'fences' | 'ends';
const MOST_NAMED = 500;

/**
 * Fences, whiskers and the readings outside the fences (Tukey 1977, section 2D). A reading on a fence is inside.
 * @param sorted readings in rising order, not empty; `order` gives the place of each in `rows`
 */
export function boxOf(
  { sorted, order }: { sorted: Float64Array; order: Int32Array },
  rows: Int32Array,
  [q1, q3]: readonly [number, number],
  whiskers: Whiskers,
): Box {
  const n = sorted.length;
  if (whiskers === 'ends') {
    return { fences: null, whiskers: [sorted[0]!, sorted[n - 1]!], outside: [], outsideCount: 0, farCount: 0 };
  }
  const iqr = q3 - q1;
  const inner: [number, number] = [q1 - 1.5 * iqr, q3 + 1.5 * iqr];
  const outer: [number, number] = [q1 - 3 * iqr, q3 + 3 * iqr];
  let below = 0;
  while (below < n && sorted[below]! < inner[0]) below++;
  let above = n;
  while (above > below && sorted[above - 1]! > inner[1]) above--;
  const outside: Outside[] = [];
  const take = (k: number) => {
    const value = sorted[k]!;
    outside.push({ row: rows[order[k]!]!, value, far: value < outer[0] || value > outer[1] });
  };
  for (let k = 0; k < below; k++) take(k);
  for (let k = n - 1; k >= above; k--) take(k);
  const distance = ({ value }: Outside) => Math.max(inner[0] - value, value - inner[1]);
  outside.sort((a, b) => distance(b) - distance(a) || a.row - b.row);
  return {
    fences: { inner, outer },
    // Quartiles lie between readings inside the fences, so that something is always left between.
    whiskers: [sorted[Math.min(below, n - 1)]!, sorted[Math.max(above - 1, 0)]!],
    outside: outside.slice(0, MOST_NAMED),
    outsideCount: outside.length,
    farCount: outside.filter(({ far }) => far).length,
  };
}
