/** The steps of the empirical distribution: at each different value, how many readings are at or below it. */
export interface Steps {
  values: number[];
  atOrBelow: number[];
}

/** The steps of readings in rising order. */
export function stepsOf(sorted: Float64Array): Steps {
  const steps: Steps = { values: [], atOrBelow: [] };
  for (let i = 0; i < sorted.length; i++) {
    if (sorted[i] === sorted[i + 1]) continue;
    steps.values.push(sorted[i]!);
    steps.atOrBelow.push(i + 1);
  }
  return steps;
}
