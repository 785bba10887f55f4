import type { FittedCurve, Picture } from '@verdict/core/analyses';
import {
  curveOver,
  distribution,
  distributionName,
  familyByName,
  type Curve,
  type CurveScale,
} from '@verdict/core/distributions';
import { formatFigure } from '@verdict/core/format';
import type { Bounds } from '@verdict/contract';
import type { Mark } from './marks.js';
import type { Axis } from './picture.js';

/** Titles written over a picture's own. */
export interface Titles {
  title?: string | undefined;
  valueTitle?: string | undefined;
  heightTitle?: string | undefined;
}

/** A line over the picture at a value of its own: a limit that is tried out, a reading that is moved. */
export interface Line {
  at: number;
  words: string;
  tone: 'green' | 'ochre';
}

/** What of a picture is the same for all kinds: its result, the limits of its column, titles. */
export interface Setting {
  bounds: Bounds | null;
  titles: Titles;
  lines: readonly Line[];
  /** The axis stays as it is while something is dragged along it, or the picture would run away from the pointer. */
  hold: { from: number; to: number } | null;
}

type AnyPicture = Pick<Picture<object>, 'column' | 'unit' | 'resolution' | 'scores' | 'by' | 'grouped'>;

/** True where the parts are several columns: then the limits of one do not hold for the others. */
export const isBeside = ({ grouped, by }: AnyPicture) => grouped && by === null;

/** A reading with its unit, as pointing says it. */
export function readingWords(
  { resolution, unit }: AnyPicture,
  value: number,
  kind: 'reading' | 'location' = 'reading',
): string {
  return `${formatFigure(value, kind, resolution)}${unit ? ` ${unit}` : ''}`;
}

const LIMITS = [
  ['lowerLimit', 'lower limit'],
  ['target', 'target'],
  ['upperLimit', 'upper limit'],
] as const;
/** A limit further off than this share of the readings' range does not squeeze them together: it is named at the edge. */
const FURTHEST = 0.6;

/** The axis of the readings: fitted to them, with the limits that lie near. */
export function valueAxis(picture: AnyPicture, least: number, greatest: number, setting: Setting): Axis {
  const { bounds, titles, lines } = setting;
  const range = greatest - least || Math.abs(greatest) * 0.02 || 1;
  let [from, to] = [least, greatest];
  for (const [key] of LIMITS) {
    const at = isBeside(picture) ? null : (bounds?.[key] ?? null);
    if (at === null) continue;
    if (at < from && least - at < FURTHEST * range) from = at;
    if (at > to && at - greatest < FURTHEST * range) to = at;
  }
  // What is dragged stays on the picture.
  for (const { at } of lines) {
    if (at < from && from - at < range) from = at;
    if (at > to && at - to < range) to = at;
  }
  const own = isBeside(picture) ? 'reading' : picture.column;
  const title = titles.valueTitle ?? (picture.unit ? `${own}, ${picture.unit}` : own);
  if (setting.hold) return { ...setting.hold, title, scores: picture.scores };
  const air = (to - from || range) * 0.03;
  return { from: from - air, to: to + air, title, scores: picture.scores };
}

/** Limits and target as lines over the axis of readings, where it reaches. */
export function boundMarks(
  picture: AnyPicture,
  { from, to }: Axis,
  { bounds, lines }: Setting,
  across: 'x' | 'y',
): Mark[] {
  const own = lines.map(({ at, words, tone }): Mark => ({
    kind: 'rule',
    across,
    at,
    tone,
    words,
  }));
  if (!bounds || isBeside(picture)) return own;
  const given = LIMITS.flatMap(([key, name]): Mark[] => {
    const at = bounds[key];
    if (at === null || at < from || at > to) return [];
    const words = `${name} ${formatFigure(at, 'reading', picture.resolution)}`;
    const tone = key === 'target' ? ('green' as const) : ('ochre' as const);
    return [{ kind: 'rule', across, at, tone, dash: [6, 4], words }];
  });
  return [...given, ...own];
}

/** Limits that are beyond the picture, in words: they are not passed over in silence. */
export function boundsBeyond(picture: AnyPicture, { from, to }: Axis, { bounds }: Setting): string[] {
  if (!bounds || isBeside(picture)) return [];
  return LIMITS.flatMap(([key, name]) => {
    const at = bounds[key];
    if (at === null || (at >= from && at <= to)) return [];
    return [`${name} ${readingWords(picture, at)} lies ${at < from ? 'to the left' : 'to the right'} of the picture`];
  });
}

/** The points of a fitted curve over the axis; null where there is none. */
export function curvePoints(curve: FittedCurve, { from, to }: Axis, scale: CurveScale): Curve | null {
  if (!curve || !('family' in curve)) return null;
  const family = familyByName(curve.family);
  const drawn = curveOver(family, distribution(family, curve.parameters), { from, to }, scale);
  // Over a window far wider than the curve some points are beyond a double.
  const held = drawn.x.map((x, i) => Number.isFinite(x) && Number.isFinite(drawn.y[i]!));
  return { ...drawn, x: drawn.x.filter((_, i) => held[i]), y: drawn.y.filter((_, i) => held[i]) };
}

/** "normal with mean 8.016 and sd 0.1081", or nothing. */
export function curveName(curve: FittedCurve): string {
  if (!curve || !('family' in curve)) return '';
  const short = Object.entries(curve.parameters).map(([name, value]) => [name, Number(value.toPrecision(5))]);
  return distributionName(curve.family, Object.fromEntries(short));
}
