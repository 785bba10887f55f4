import { distribution, familyByName, type Parameters } from '@verdict/core/distributions';

/** A column and the distribution found for it, as the page of distributions is asked about it. */
interface Asked {
  column: { id: string; lowerLimit: number | null; upperLimit: number | null };
  family: string;
  parameters: Parameters;
}

/** The share of a normal below one sd under its mean. */
const ONE_SD = 0.15865525393145707;

/** The question that the page of distributions begins with: the family fitted to a column, its parameters in full, the readings under its curve. */
export function askDistribution({ column, family, parameters }: Asked) {
  const { lowerLimit, upperLimit } = column;
  const law = distribution(familyByName(family), parameters);
  // Asked about first: the specification limits, else the middle two thirds, as of a normal within one sd.
  const limits =
    lowerLimit !== null && upperLimit !== null
      ? [lowerLimit, upperLimit]
      : [law.quantile(ONE_SD), law.survivalQuantile(ONE_SD)].map((x) => Number(x.toPrecision(4)));
  return {
    family,
    ask: 'between',
    column: column.id,
    ...Object.fromEntries(Object.entries(parameters).map(([name, value]) => [`p.${name}`, String(value)])),
    a: String(limits[0]),
    b: String(limits[1]),
  };
}
