import {
  formatEstimate,
  formatFigure,
  formatPercentOf,
  formatApart,
  formatValue,
  type FigureKind,
} from '../../numeric/format.js';
import type { FigureOf } from '../../road/figure.js';
import type { Described } from './describe-result.js';

/** A figure of a column. */
export interface Figure extends FigureOf<Described> {
  group: 'Centre' | 'Spread' | 'Order' | 'Shape';
  /** The numbers behind it in full, as they are copied; empty where there are none. */
  values: (d: Described) => (number | null)[];
  text: (d: Described) => string;
  /** Other definitions of the same thing, by key. */
  others?: readonly string[];
  /** Shown beside the picture, not only in the table of all figures. */
  first?: boolean;
}

export const NOTHING = '–';
type Kind = FigureKind;

export const inUnit = (d: Described, value: number | null, kind: Kind) =>
  value === null ? NOTHING : formatFigure(value, kind, d.resolution, kind === 'statistic' ? null : d.decimals);

/** A mean, or an end of its interval: at the digits of its standard error. */
export const estimate = (d: Described, value: number) =>
  formatEstimate(value, d.standardError, d.resolution, d.decimals);

/** A figure that is one number. */
export function one(
  facts: Omit<Figure, 'values' | 'text'>,
  kind: Kind | 'percent',
  value: (d: Described) => number | null,
): Figure {
  const text = (d: Described) => {
    const found = value(d);
    if (kind === 'percent') {
      if (found === null) return NOTHING;
      // Far beyond the mean a percentage says less than a multiple.
      return found < 10 ? formatPercentOf(found, 1, 3) : `${formatValue(found)} times`;
    }
    if (facts.key === 'mean' && found !== null) return estimate(d, found);
    return inUnit(d, found, kind);
  };
  return { ...facts, values: (d) => [value(d)], text };
}

/** A figure that is two numbers, from and to. */
export function pair(
  facts: Omit<Figure, 'values' | 'text'>,
  kind: Kind,
  value: (d: Described) => readonly [number, number] | null,
): Figure {
  const text = (d: Described) => {
    const found = value(d);
    if (!found) return NOTHING;
    const print = (one: number) => (facts.key === 'meanInterval' ? estimate(d, one) : inUnit(d, one, kind));
    const [low, high] = formatApart(found[0], found[1], print) ?? [print(found[0]), print(found[1])];
    return `${low} – ${high}`;
  };
  return { ...facts, values: (d) => [...(value(d) ?? [])], text };
}
