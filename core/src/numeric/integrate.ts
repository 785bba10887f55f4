/** Nodes and weights of Gauss & Legendre's rule of 16 points (Abramowitz & Stegun 1964, table 25.4). */
const RULE = [
  [0.0950125098376374402, 0.1894506104550684963],
  [0.2816035507792589132, 0.1826034150449235888],
  [0.4580167776572273863, 0.1691565193950025382],
  [0.6178762444026437484, 0.1495959888165767321],
  [0.7554044083550030339, 0.124628971255533872],
  [0.8656312023878317439, 0.0951585116824927848],
  [0.9445750230732325761, 0.0622535239386478929],
  [0.9894009349916499326, 0.0271524594117540949],
] as const;

/** The integral of a smooth function from one end to another, in so many panels of sixteen points each. */
export function integrate(of: (x: number) => number, from: number, to: number, panels: number): number {
  const half = (to - from) / panels / 2;
  let sum = 0;
  for (let k = 0; k < panels; k++) {
    const middle = from + (2 * k + 1) * half;
    for (const [node, weight] of RULE) sum += weight * (of(middle - half * node) + of(middle + half * node));
  }
  return half * sum;
}

const GOLDEN = (3 - Math.sqrt(5)) / 2;
const ROUNDS = 90;
/** The distance from the maximum of a logarithm below which values do not contribute to sixteen digits. */
const DROP = 45;

/** The maximum of a unimodal function between two ends, by golden section (Kiefer 1953). */
function summit(of: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to];
  let [a, b] = [low + GOLDEN * (high - low), high - GOLDEN * (high - low)];
  let [atA, atB] = [of(a), of(b)];
  for (let round = 0; round < ROUNDS; round++) {
    if (atA < atB) {
      [low, a, atA] = [a, b, atB];
      b = high - GOLDEN * (high - low);
      atB = of(b);
    } else {
      [high, b, atB] = [b, a, atA];
      a = low + GOLDEN * (high - low);
      atA = of(a);
    }
  }
  return low + (high - low) / 2;
}

/** The interval between two ends on which a unimodal function, given by its logarithm, contributes to its integral. */
export function worthwhile(logOf: (x: number) => number, from: number, to: number): [low: number, high: number] {
  const top = summit(logOf, from, to);
  const floor = logOf(top) - DROP;
  const edge = (outer: number): number => {
    if (logOf(outer) >= floor) return outer;
    let [out, inside] = [outer, top];
    for (let round = 0; round < 60; round++) {
      const middle = out + (inside - out) / 2;
      if (logOf(middle) >= floor) inside = middle;
      else out = middle;
    }
    return out;
  };
  return [edge(from), edge(to)];
}
