import type { GalleryPicture, GalleryResult } from '@verdict/core/analyses';
import { formatP } from '@verdict/core/format';
import type { Sheet } from '../picture.js';
import { inRows } from '../sheet.js';
import { cellMarks } from './sheet-cells.js';

const COLUMNS = 4;
/** The height of the two large pictures, as a share of all. */
const LARGE = 0.54;

/** The subject beside one of the samples, large; all samples below. The first two cells are the large ones. */
export function gallerySheet(
  { samples, subject, n, alpha }: GalleryResult,
  column: string,
  as: 'plot' | 'histogram',
  kind: string,
): Sheet {
  const boxes = inRows(samples.length, COLUMNS, LARGE);
  const shown = samples.find((sample) => sample.kind === kind) ?? samples[0]!;
  const large = n <= 200 ? 3.4 : 2.2;
  const small = n <= 60 ? 2 : 1.2;
  const p = ({ pValue }: GalleryPicture) => (pValue === null ? '' : `, p of A² ${formatP(pValue, alpha)}`);
  const half = (left: number) => ({ left, top: 0, width: 0.5, height: LARGE });
  const from = `${shown.title}: from ${shown.from}${p(shown)}`;
  return {
    cells: [
      {
        ...cellMarks(subject[as], large),
        name: `${column}${p(subject)}`,
        words: `the readings of ${column}${p(subject)}`,
        box: half(0),
        tinted: true,
      },
      { ...cellMarks(shown[as], large), name: from, words: from, box: half(0.5) },
      ...samples.map((sample, i) => ({
        ...cellMarks(sample[as], small),
        name: sample.title,
        words: `${sample.title}: from ${sample.from}${p(sample)}`,
        box: boxes[i]!,
        chosen: sample === shown,
      })),
    ],
  };
}
