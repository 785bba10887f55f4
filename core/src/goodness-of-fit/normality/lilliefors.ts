/**
 * D of Lilliefors (1967): the greatest distance of the steps of the readings from the fitted curve. `cumulative` holds the curve at the
 * readings in rising order.
 */
export function lilliefors(cumulative: Float64Array): number {
  const n = cumulative.length;
  let greatest = 0;
  for (let i = 0; i < n; i++) {
    const p = cumulative[i]!;
    const above = (i + 1) / n - p;
    const below = p - i / n;
    if (above > greatest) greatest = above;
    if (below > greatest) greatest = below;
  }
  return greatest;
}
