import { z } from 'zod';
import { dotStacks, HIGHEST_STACK, stackEdges, type DotStacks } from '../../describe/dot-stacks.js';
import { countsIn } from '../../describe/histogram.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { defineAnalysis, isUnavailable } from '../../road/analysis.js';
import { groupSettings, MOST_GROUPS, subjectWords } from '../../road/groups.js';
import { pictured, type Picture, pictureSettings, AXIS_PARTS } from './picture.js';
import { columnSetting } from '../../road/settings.js';

const request = z.strictObject({ column: columnSetting, ...groupSettings, ...pictureSettings });
export type DotsRequest = z.infer<typeof request>;

export interface DotsResult extends Picture<DotStacks> {
  width: number;
  perDot: number;
}

/** Readings as stacked dots (STATISTICS section 2). */
export const dotsAnalysis = defineAnalysis<DotsRequest, DotsResult>({
  id: 'dots',
  version: 2,
  name: 'Dot plot',
  title: 'each reading as a dot, equal readings stacked',
  request,
  method: ['Dot plot of ', { subject: true }, ...AXIS_PARTS],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    const parts = Math.min(MOST_GROUPS, sample.groups?.samples.length ?? 1);
    const found = pictured(
      sample,
      asked,
      (values, resolution) => {
        const stretches = stackEdges(values, resolution);
        const highest = (sample.groups?.samples ?? [sample])
          .slice(0, MOST_GROUPS)
          .reduce((most, { values: own }) => Math.max(most, ...countsIn(own, stretches.edges)), 0);
        // A dot stands for the same number of readings in every part, and stacks are lower where parts share the height.
        return { ...stretches, perDot: Math.max(1, Math.ceil((highest * parts) / HIGHEST_STACK)) };
      },
      ({ values }, shared) => dotStacks(values, shared, shared.perDot),
    );
    if (isUnavailable(found)) return found;
    const { picture, shared } = found;
    const few = shared.perDot > 1;
    const text = `One dot stands for up to ${groupThousands(shared.perDot)} readings.`;
    const notes = few ? [...picture.notes, { code: 'dots-stand-for-several', text }] : picture.notes;
    return { ...picture, width: shared.width, perDot: shared.perDot, notes };
  },
  finding: ({ n, width, perDot, unit }) => {
    const each = perDot === 1 ? 'one dot for each reading' : `one dot for up to ${groupThousands(perDot)} readings`;
    const of = unit ? `\u00a0${unit}` : '';
    return [{ text: `${plural(n, 'reading')}, ${each}, stacks ${formatValue(width)}${of} wide.` }];
  },
});
