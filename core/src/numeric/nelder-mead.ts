/** The result of a search: the place, the value there, and whether it converged. */
export interface Minimum {
  at: Float64Array;
  value: number;
  converged: boolean;
  evaluations: number;
}

const MOST_EVALUATIONS = 4000;

/** One descent of the simplex method with the dimension-adapted coefficients of Gao & Han (2012). */
function descend(f: (x: Float64Array) => number, start: Float64Array, stride: number, tolerance: number): Minimum {
  const n = start.length;
  const expansion = 1 + 2 / n;
  const contraction = 0.75 - 0.5 / n;
  const shrinkage = 1 - 1 / n;
  let evaluations = 0;
  const value = (x: Float64Array): number => {
    evaluations++;
    const y = f(x);
    return Number.isNaN(y) ? Infinity : y;
  };
  const corner = (x: Float64Array) => ({ x, y: value(x) });
  const simplex = [corner(Float64Array.from(start))];
  for (let i = 0; i < n; i++) {
    const x = Float64Array.from(start);
    x[i] = x[i]! + stride;
    simplex.push(corner(x));
  }
  for (;;) {
    simplex.sort((a, b) => a.y - b.y);
    const best = simplex[0]!;
    const worst = simplex[n]!;
    const spread = worst.y - best.y;
    let size = 0;
    for (let i = 0; i < n; i++) size = Math.max(size, Math.abs(worst.x[i]! - best.x[i]!));
    const closed = spread <= tolerance * (1 + Math.abs(best.y)) && size < 1e-5;
    if (closed || size < 1e-14 || evaluations > MOST_EVALUATIONS) {
      return { at: best.x, value: best.y, converged: closed || size < 1e-14, evaluations };
    }
    const centre = new Float64Array(n);
    for (let c = 0; c < n; c++) for (let i = 0; i < n; i++) centre[i] = centre[i]! + simplex[c]!.x[i]! / n;
    const along = (t: number) => corner(centre.map((m, i) => m + t * (worst.x[i]! - m)));
    const reflected = along(-1);
    if (reflected.y < best.y) {
      const further = along(-expansion);
      simplex[n] = further.y < reflected.y ? further : reflected;
    } else if (reflected.y < simplex[n - 1]!.y) {
      simplex[n] = reflected;
    } else {
      const between = along(reflected.y < worst.y ? -contraction : contraction);
      if (between.y < Math.min(reflected.y, worst.y)) simplex[n] = between;
      else {
        for (let c = 1; c <= n; c++) {
          simplex[c] = corner(best.x.map((m, i) => m + shrinkage * (simplex[c]!.x[i]! - m)));
        }
      }
    }
  }
}

/**
 * The least value of f near `start`, by Nelder & Mead's (1965) simplex, begun again from where it ended until a fresh simplex
 * finds nothing better. `stride` is the size of the first simplex in every direction; NaN counts as infinitely bad.
 */
export function nelderMead(f: (x: Float64Array) => number, start: Float64Array, stride: number): Minimum {
  let found = descend(f, start, stride, 1e-14);
  let evaluations = found.evaluations;
  for (let round = 0; round < 6; round++) {
    const again = descend(f, found.at, stride / 4, 1e-15);
    evaluations += again.evaluations;
    const gained = found.value - again.value;
    if (again.value <= found.value) found = again;
    if (!(gained > 1e-11 * (1 + Math.abs(found.value)))) break;
  }
  return { ...found, evaluations };
}
