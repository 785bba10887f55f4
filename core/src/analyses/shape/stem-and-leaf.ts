import { z } from 'zod';
import { stemAndLeaf, stemLayout, type StemAndLeaf, type StemSplit } from '../../describe/stem-and-leaf.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { defineAnalysis, isUnavailable, type Note } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { pictured, type Picture } from './picture.js';
import { choice } from '../../road/setting.js';
import { columnSetting } from '../../road/settings.js';

const lines = choice(
  'lines',
  'lines per stem',
  [
    { value: 'auto', text: 'automatic number of lines per stem' },
    { value: '1', text: 'one line per stem' },
    { value: '2', text: 'two lines per stem' },
    { value: '5', text: 'five lines per stem' },
  ],
  'auto',
);

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  lines: lines.schema,
});
export type StemAndLeafRequest = z.infer<typeof request>;
export type StemAndLeafResult = Picture<StemAndLeaf>;

/** More leaves than this fill lines that nobody reads. */
const MOST_LEAVES = 3_000;

/** "stem 77 with leaf 5 is 7.75 mm": how the first leaf is read. */
export function leafWords({ leafUnit, lines }: StemAndLeaf, unit: string): string {
  const { stem, leaves } = lines.find((line) => line.leaves !== '')!;
  const leaf = leaves[0]!;
  const digits = Number(stem.replace('\u2212', '') + leaf);
  const value = (stem.startsWith('\u2212') ? -digits : digits) * leafUnit;
  return `stem ${stem}, leaf ${leaf} stands for ${formatValue(value)}${unit ? `\u00a0${unit}` : ''}`;
}

/** One display as text in columns: depth, stem, leaves; the lines of the median marked. */
export function stemText({ lines }: StemAndLeaf): string[] {
  const depth = Math.max(...lines.map((line) => String(line.depth).length));
  const stem = Math.max(...lines.map((line) => line.stem.length));
  return lines.map(
    (line) =>
      `${String(line.depth).padStart(depth)} ${line.median ? '›' : ' '} ${line.stem.padStart(stem)} │ ${line.leaves}`,
  );
}

/** Stem-and-leaf display (STATISTICS section 2). */
export const stemAndLeafAnalysis = defineAnalysis<StemAndLeafRequest, StemAndLeafResult>({
  id: 'stem-and-leaf',
  version: 2,
  name: 'Stem-and-leaf',
  title: 'every reading as a leaf on a stem, with depths',
  request,
  method: ['Stem-and-leaf display of ', { subject: true }, ', ', lines.field, '.'],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run({ lines }, sample) {
    const n = sample.values.length;
    if (n > MOST_LEAVES) {
      const text = `A stem-and-leaf display takes up to ${groupThousands(MOST_LEAVES)} readings; here there are ${groupThousands(n)}. The histogram and the empirical distribution show all.`;
      return unavailable(sample, text);
    }
    const split = lines === 'auto' ? null : (Number(lines) as StemSplit);
    const found = pictured(
      sample,
      { axis: 'readings' },
      (values, resolution) => stemLayout(values.slice().sort(), resolution, split),
      ({ values }, layout) => stemAndLeaf(values.slice().sort(), layout),
    );
    if (isUnavailable(found)) return found;
    const { picture } = found;
    const cut: Note = {
      code: 'cut',
      text: 'The display is not exact: digits after the leaf are truncated, not rounded.',
    };
    return { ...picture, notes: picture.parts.some((part) => part.cut) ? [...picture.notes, cut] : picture.notes };
  },
  finding: ({ parts, unit, n }) => {
    const [first] = parts;
    return [{ text: `${plural(n, 'reading')}; ${leafWords(first!, unit)}.` }];
  },
});
