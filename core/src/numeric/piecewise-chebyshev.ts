/** The nodes of Chebyshev above 0, cos((2i + 1)π/36): those below mirror them. */
const ABOVE = [
  0.9961946980917455, 0.9659258262890683, 0.9063077870366499, 0.8191520442889918, 0.7071067811865476,
  0.5735764363510462, 0.42261826174069944, 0.25881904510252096, 0.08715574274765814,
] as const;
const PLACES = Float64Array.from([...ABOVE, ...ABOVE.map((place) => -place).reverse()]);
/** The weights of the barycentric formula (Berrut & Trefethen 2004). */
const WEIGHTS = PLACES.map((place, i) => (i % 2 === 0 ? 1 : -1) * Math.sqrt((1 - place) * (1 + place)));
const NODES = PLACES.length;

/**
 * A smooth function that is dear to work out, by interpolation between Chebyshev nodes over stretches of a given width: a stretch is worked out when it is first asked for. To some 1e-15 of the greatest value
 * of the stretch where the function is analytic well beyond it.
 */
export function piecewiseChebyshev(of: (x: number) => number, width: number): (x: number) => number {
  const known = new Map<number, Float64Array>();
  return (x) => {
    const piece = Math.floor(x / width);
    const middle = (piece + 0.5) * width;
    let values = known.get(piece);
    if (!values) known.set(piece, (values = PLACES.map((place) => of(middle + (place * width) / 2))));
    const at = ((x - middle) * 2) / width;
    let [above, below] = [0, 0];
    for (let i = 0; i < NODES; i++) {
      const off = at - PLACES[i]!;
      if (off === 0) return values[i]!;
      const weight = WEIGHTS[i]! / off;
      above += weight * values[i]!;
      below += weight;
    }
    return above / below;
  };
}
