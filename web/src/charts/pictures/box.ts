import type { BoxPart, BoxResult } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';
import { boundMarks, readingWords, valueAxis, type Setting } from '../value-axis.js';

type Part = BoxResult['parts'][number];
/** Half the height of a box, where one part takes up 1. */
const HALF = 0.28;

/** The ends of everything a box shows. */
function reach({ whiskers, outside, mean }: BoxPart): [number, number] {
  const values = outside.map(({ value }) => value);
  return [Math.min(whiskers[0], mean, ...values), Math.max(whiskers[1], mean, ...values)];
}

/** The marks of a lying box at a height: a rule, a bar, a tick and dots. */
function boxMarks({ q1, q3, median, mean, whiskers, outside }: Part, at: number): Mark[] {
  const line = (x: number[], y: number[], width = 1.4): Mark => ({ kind: 'line', x, y, tone: 'ink', width });
  const far = outside.filter((one) => one.far);
  const near = outside.filter((one) => !one.far);
  const points = (some: typeof outside, tone: 'ink' | 'ochre'): Mark => ({
    ...{ kind: 'points', tone, marker: 'circle', radius: 3.6 },
    x: some.map(({ value }) => value),
    y: some.map(() => at),
  });
  return [
    line([whiskers[0], q1], [at, at]),
    line([q3, whiskers[1]], [at, at]),
    line([whiskers[0], whiskers[0]], [at - HALF / 2, at + HALF / 2]),
    line([whiskers[1], whiskers[1]], [at - HALF / 2, at + HALF / 2]),
    { kind: 'rect', x: [q1, q3], y: [at - HALF, at + HALF], fill: 'green', stroke: 'green' },
    line([median, median], [at - HALF, at + HALF], 3),
    { kind: 'points', x: [mean], y: [at], tone: 'ink', marker: 'diamond', radius: 4 },
    points(near, 'ink'),
    points(far, 'ochre'),
  ];
}

function boxHits(result: BoxResult, part: Part, at: number): Hit[] {
  const say = (value: number) => readingWords(result, value);
  // Between readings: one more decimal.
  const between = (value: number) => readingWords(result, value, 'location');
  const who = result.grouped ? `${part.name}: ` : '';
  const place = (value: number): Pick<Hit, 'panel' | 'x' | 'y'> => ({ panel: 0, x: [value, value], y: [at, at] });
  return [
    {
      ...place(part.median),
      words: `${who}median ${between(part.median)}, quartiles ${between(part.q1)} and ${between(part.q3)}`,
    },
    { ...place(part.mean), words: `${who}mean ${between(part.mean)}` },
    ...(['lower', 'upper'] as const).map((end, k) => ({
      ...place(part.whiskers[k]!),
      words: `${who}${end} whisker ${say(part.whiskers[k]!)}${part.fences ? `; the ${end} fence stands at ${between(part.fences.inner[k]!)}` : ''}`,
    })),
    ...part.outside.map(({ row, value, far }) => ({
      ...place(value),
      row,
      words: `${who}row ${row}: ${say(value)}, beyond ${far ? 'three' : '1.5'} IQR`,
    })),
  ];
}

/** A mark of a lying box as that of an upright one. */
function turned(mark: Mark): Mark {
  switch (mark.kind) {
    case 'line':
    case 'points':
      return { ...mark, x: mark.y, y: mark.x };
    case 'rect':
      return { ...mark, x: mark.y, y: mark.x };
    default:
      return mark;
  }
}

/** Boxes of all parts on one axis; the first at the top, or upright at the left. */
export function boxPanels(result: BoxResult, setting: Setting): Panels {
  const { parts, direction, grouped } = result;
  const ends = parts.map(reach);
  const values = valueAxis(result, Math.min(...ends.map(([a]) => a)), Math.max(...ends.map(([, b]) => b)), setting);
  const last = parts.length - 1;
  const upright = direction === 'upright';
  const placeOf = (i: number) => (upright ? i : last - i);
  const beside: Axis = {
    // One box alone does not fill the picture.
    from: last === 0 ? -1 : -0.6,
    to: last === 0 ? 1 : last + 0.6,
    title: setting.titles.heightTitle ?? (grouped ? (result.by ?? '') : ''),
    ticks: parts.map(({ name, n }, i) => ({ at: placeOf(i), words: grouped ? `${name}, ${groupThousands(n)}` : '' })),
  };
  const marks = parts.flatMap((part, i) => boxMarks(part, placeOf(i)));
  const hits = parts.flatMap((part, i) => boxHits(result, part, placeOf(i)));
  const bounds = boundMarks(result, values, setting, upright ? 'y' : 'x');
  if (!upright) return { x: values, y: beside, panels: [{ name: '', marks: [...marks, ...bounds] }], hits };
  return {
    x: beside,
    y: values,
    panels: [{ name: '', marks: [...marks.map(turned), ...bounds] }],
    hits: hits.map((hit) => ({ ...hit, x: hit.y, y: hit.x })),
  };
}
