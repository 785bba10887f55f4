/** W in one plain loop: AS 241 and AS R94 written down, no module of the core. */

const A = [
  3.3871328727963666, 133.14166789178438, 1971.5909503065513, 13731.69376550946, 45921.95393154987, 67265.7709270087,
  33430.57558358813, 2509.0809287301227,
];
const B = [
  1, 42.31333070160091, 687.1870074920579, 5394.196021424751, 21213.794301586597, 39307.89580009271, 28729.085735721943,
  5226.495278852854,
];
const C = [
  1.4234371107496835, 4.630337846156546, 5.769497221460691, 3.6478483247632045, 1.2704582524523684, 0.2417807251774506,
  0.022723844989269184, 0.0007745450142783414,
];
const D = [
  1, 2.053191626637759, 1.6763848301838038, 0.6897673349851, 0.14810397642748008, 0.015198666563616457,
  0.0005475938084995345, 1.0507500716444169e-9,
];

const over = (a: readonly number[], b: readonly number[], x: number): number => {
  let [p, q] = [0, 0];
  for (let k = 7; k >= 0; k--) {
    p = p * x + a[k]!;
    q = q * x + b[k]!;
  }
  return p / q;
};

/** The normal quantile of a share that is not far out. */
function quantile(share: number): number {
  const q = share - 0.5;
  if (Math.abs(q) <= 0.425) return q * over(A, B, 0.180625 - q * q);
  const r = Math.sqrt(-Math.log(q < 0 ? share : 1 - share)) - 1.6;
  const z = over(C, D, r);
  return q < 0 ? -z : z;
}

export function plainShapiroWilk(x: Float64Array): number {
  const n = x.length;
  const m = new Float64Array(n);
  let squares = 0;
  let mean = 0;
  for (let i = 0; i < n; i++) {
    m[i] = quantile((i + 0.625) / (n + 0.25));
    squares += m[i]! * m[i]!;
    mean += x[i]! / n;
  }
  const u = 1 / Math.sqrt(n);
  const root = Math.sqrt(squares);
  const last = ((((-2.706056 * u + 4.434685) * u - 2.07119) * u - 0.147981) * u + 0.221157) * u + m[n - 1]! / root;
  const next = ((((-3.582633 * u + 5.682633) * u - 1.752461) * u - 0.293762) * u + 0.042981) * u + m[n - 2]! / root;
  const phi = (squares - 2 * m[n - 1]! ** 2 - 2 * m[n - 2]! ** 2) / (1 - 2 * last * last - 2 * next * next);
  let [sum, spread] = [0, 0];
  for (let i = 0; i < n; i++) {
    const a = i === n - 1 ? last : i === n - 2 ? next : i === 0 ? -last : i === 1 ? -next : m[i]! / Math.sqrt(phi);
    sum += a * x[i]!;
    spread += (x[i]! - mean) ** 2;
  }
  return (sum * sum) / spread;
}
