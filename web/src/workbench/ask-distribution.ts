/** A column as the page of distributions is asked about it. */
interface Asked {
  column: { id: string; lowerLimit: number | null; upperLimit: number | null };
  mean: number;
  sd: number;
}

/** The question that the page of distributions begins with: the normal fitted to a column, its parameters in full, the readings under its curve. */
export function askDistribution({ column, mean, sd }: Asked) {
  const { lowerLimit, upperLimit } = column;
  // Asked about first: the specification limits, else one sd on either side.
  const limits =
    lowerLimit !== null && upperLimit !== null
      ? [lowerLimit, upperLimit]
      : [mean - sd, mean + sd].map((x) => Number(x.toPrecision(4)));
  return {
    family: 'normal',
    ask: 'between',
    column: column.id,
    'p.mean': String(mean),
    'p.sd': String(sd),
    a: String(limits[0]),
    b: String(limits[1]),
  };
}
