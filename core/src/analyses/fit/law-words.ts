import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import { parameterWords } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import { formatEstimate, formatFigure, formatValue, type FigureKind } from '../../numeric/format.js';

/** Parameters in the unit of the readings: written with the digits that these allow. */
const IN_UNIT: Record<string, FigureKind> = {
  mean: 'location',
  location: 'location',
  threshold: 'location',
  lower: 'location',
  mode: 'location',
  upper: 'location',
  sd: 'spread',
  scale: 'location',
};
const DIGITS = 4;

/** So many digits, without zeros that say nothing. */
export const briefly = (value: number, digits: number): string =>
  formatValue(Number(value.toPrecision(digits))).replace(/[.]?0+(?=\s×)/, '');

/** One parameter in words: at the digits of its standard error, where there is one. */
export function parameterText(
  name: string,
  value: number,
  resolution: number | null,
  error: number | null | undefined = null,
): string {
  if (error) return formatEstimate(value, error, resolution);
  const kind = IN_UNIT[name];
  const short = briefly(value, DIGITS);
  if (!kind) return short;
  const allowed = formatFigure(value, kind, resolution);
  // The scale of a gamma of large shape is far smaller than the readings: fewer digits than four would not tell it.
  const digits = allowed.replace(/^\D*0*[.]?0*|\D/g, '').length;
  return digits < DIGITS && value !== 0 ? short : allowed;
}

interface Notation {
  law: PlottedLaw;
  resolution: number | null;
  unit: string;
}

/** "mean 8.02 and sd 0.11 mm". */
export function lawWords({ law, resolution, unit }: Notation): string {
  const words = parameterWords(law.family, law.parameters, (value, { name }) =>
    law.estimated.length === 0 ? formatValue(value) : parameterText(name, value, resolution, law.standardErrors[name]),
  );
  const last = familyByName(law.family).parameters.findLast(
    ({ optional, usual, name }) => !optional || law.parameters[name] !== usual,
  )!;
  return unit && IN_UNIT[last.name] ? `${words}\u00a0${unit}` : words;
}
