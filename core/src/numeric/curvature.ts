/** The gradient and the matrix of second derivatives of f at a place, by central differences over the given steps. */
export interface Curvature {
  value: number;
  gradient: Float64Array;
  /** Row by row. */
  hessian: Float64Array;
}

/** Central differences over one step size: errors of the order of the step squared. */
function once(f: (x: Float64Array) => number, at: Float64Array, steps: Float64Array, value: number): Curvature {
  const n = at.length;
  const gradient = new Float64Array(n);
  const hessian = new Float64Array(n * n);
  const x = Float64Array.from(at);
  const shifted = (i: number, a: number, j: number, b: number): number => {
    x.set(at);
    x[i] = x[i]! + a * steps[i]!;
    x[j] = x[j]! + b * steps[j]!;
    return f(x);
  };
  for (let i = 0; i < n; i++) {
    const up = shifted(i, 1, i, 0);
    const down = shifted(i, -1, i, 0);
    gradient[i] = (up - down) / (2 * steps[i]!);
    hessian[i * n + i] = (up - value - (value - down)) / (steps[i]! * steps[i]!);
    for (let j = 0; j < i; j++) {
      const mixed = shifted(i, 1, j, 1) - shifted(i, 1, j, -1) - (shifted(i, -1, j, 1) - shifted(i, -1, j, -1));
      hessian[i * n + j] = mixed / (4 * steps[i]! * steps[j]!);
      hessian[j * n + i] = hessian[i * n + j]!;
    }
  }
  return { value, gradient, hessian };
}

/** Two step sizes, h and h/2, combined so that the leading error cancels (Richardson 1911). */
export function curvatureAt(f: (x: Float64Array) => number, at: Float64Array, steps: Float64Array): Curvature {
  const value = f(at);
  const wide = once(f, at, steps, value);
  const narrow = once(
    f,
    at,
    steps.map((h) => h / 2),
    value,
  );
  const combine = (a: Float64Array, b: Float64Array) => b.map((v, i) => (4 * v - a[i]!) / 3);
  return {
    value,
    gradient: combine(wide.gradient, narrow.gradient),
    hessian: combine(wide.hessian, narrow.hessian),
  };
}
