import { z } from 'zod';
import { boxOf, type Box } from '../../describe/box.js';
import { medianOfSorted, quartilesOfSorted } from '../../describe/quantiles.js';
import { worked } from '../../describe/working-unit.js';
import { formatFigure, groupThousands } from '../../numeric/format.js';
import { ordered } from '../../numeric/ordered.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, isUnavailable, type Piece } from '../../road/analysis.js';
import { choice } from '../../road/setting.js';
import { quartiles } from './quartiles-setting.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { pictured, type Picture, pictureSettings, AXIS_PARTS } from './picture.js';
import { columnSetting } from '../../road/settings.js';

const direction = choice(
  'direction',
  'direction of the box',
  [
    { value: 'lying', text: 'horizontal' },
    { value: 'upright', text: 'vertical' },
  ],
  'lying',
);
const whiskers = choice(
  'whiskers',
  'whiskers',
  [
    { value: 'fences', text: 'the most extreme readings within 1.5 IQR' },
    { value: 'ends', text: 'minimum and maximum' },
  ],
  'fences',
);

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  quantileType: quartiles.schema,
  whiskers: whiskers.schema,
  direction: direction.schema,
  ...pictureSettings,
});
export type BoxRequest = z.infer<typeof request>;

export interface BoxPart extends Box {
  q1: number;
  median: number;
  q3: number;
  mean: number;
}
export interface BoxResult extends Picture<BoxPart> {
  direction: BoxRequest['direction'];
}

/** The box of one part, worked out in the unit of calculation and given in that of the readings. */
function boxOfPart({ values, rows, resolution }: Sample, asked: BoxRequest): BoxPart {
  const { values: own, back } = worked(values, resolution);
  const order = ordered(own);
  const quartiles = quartilesOfSorted(order.sorted, asked.quantileType);
  const box = boxOf(order, rows, quartiles, asked.whiskers);
  const both = ([a, b]: [number, number]): [number, number] => [back(a), back(b)];
  return {
    q1: back(quartiles[0]),
    median: back(medianOfSorted(order.sorted)),
    q3: back(quartiles[1]),
    mean: back(centralMoments(own).mean),
    fences: box.fences && { inner: both(box.fences.inner), outer: both(box.fences.outer) },
    whiskers: both(box.whiskers),
    outside: box.outside.map((one) => ({ ...one, value: back(one.value) })),
    outsideCount: box.outsideCount,
    farCount: box.farCount,
  };
}

/** So many readings outside are named one by one. */
const MOST_NAMED = 4;

/** Where the fences stand and which readings lie outside them, the furthest first; the ends where there are no fences. */
function outsideWords(
  { outside, outsideCount, whiskers, fences }: BoxPart,
  reading: (value: number) => string,
  between: (value: number) => string,
): string {
  if (!fences) return ` Whiskers from ${reading(whiskers[0])} to ${reading(whiskers[1])}`;
  const stand = ` Fences at ${between(fences.inner[0])} and ${between(fences.inner[1])}`;
  if (outsideCount === 0) return `${stand}, no readings outside`;
  const named = outside.slice(0, MOST_NAMED).map(({ row, value }) => `${reading(value)} (row ${row})`);
  const more = outsideCount - named.length;
  return `${stand}, outside: ${named.join(', ')}${more > 0 ? ` and ${groupThousands(more)} more` : ''}`;
}

/** The box plot: median, quartiles, fences, single readings outside (STATISTICS section 2). */
export const boxAnalysis = defineAnalysis<BoxRequest, BoxResult>({
  id: 'box',
  version: 2,
  name: 'Box plot',
  title: 'median, quartiles, whiskers and the readings outside the fences',
  request,
  method: [
    'Box plot of ',
    { subject: true },
    ', ',
    direction.field,
    ', quartiles by ',
    quartiles.field,
    ', whiskers to ',
    whiskers.field,
    ...AXIS_PARTS,
  ],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    const found = pictured(
      sample,
      asked,
      () => null,
      (part) => boxOfPart(part, asked),
    );
    return isUnavailable(found) ? found : { ...found.picture, direction: asked.direction };
  },
  finding: ({ parts, grouped, resolution, unit, by }): Piece[] => {
    const of = unit ? `\u00a0${unit}` : '';
    const figure = (value: number) => `${formatFigure(value, 'location', resolution)}${of}`;
    if (grouped) {
      const medians = [...parts].sort((a, b) => a.median - b.median);
      const [low, high] = [medians[0]!, medians.at(-1)!];
      const what = by === null ? `${parts.length} columns` : `${parts.length} groups by ${by}`;
      return [
        { text: `${what}: medians from ` },
        { text: figure(low.median), strong: true, code: 'figure' },
        { text: ` (${low.name}) to ` },
        { text: figure(high.median), strong: true, code: 'figure' },
        { text: ` (${high.name}).` },
      ];
    }
    const [part] = parts;
    const reading = (value: number) => `${formatFigure(value, 'reading', resolution)}${of}`;
    return [
      { text: 'Median ' },
      { text: figure(part!.median), strong: true, code: 'figure' },
      {
        text: `, middle 50 % from ${figure(part!.q1)} to ${figure(part!.q3)}.${outsideWords(part!, reading, figure)}.`,
      },
    ];
  },
});
