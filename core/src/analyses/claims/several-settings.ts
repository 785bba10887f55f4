import { plural } from '../../numeric/grammar.js';
import { z } from 'zod';
import type { Sample } from '../../readings/sample.js';
import { isUnavailable, type Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { claimBasis, noticeable } from './claim-settings.js';
import { groupsOf, headOf, type Head } from './claim-source.js';

/** As many groups are compared. */
export const MOST_COMPARED = 200;

/** What every claim about several groups is asked with. */
export const severalBasis = {
  column: columnSetting.optional(),
  split: columnSetting.optional(),
  beside: z
    .array(columnSetting)
    .min(1)
    .max(MOST_COMPARED - 1, `At most ${MOST_COMPARED} columns are compared.`)
    .optional(),
  confidence: claimBasis.confidence,
  noticeable: noticeable.schema,
  alpha: alphaSetting,
};

/** The groups of a sample, two at least; why there are none. */
export function severalGroups(
  sample: Sample,
  asked: { least: number; purpose: string; censored?: boolean },
): { groups: Sample[]; head: Head } | Unavailable {
  if (!sample.groups) return unavailable(sample, 'Choose a label column to split by, or several columns.');
  const groups = groupsOf(sample, asked);
  if (isUnavailable(groups)) return groups;
  const { by, without, samples } = sample.groups;
  if (groups.length < 2)
    return unavailable(
      sample,
      `There is one group with readings${by === null ? '' : ` by ${by}`}: nothing to compare it with.`,
    );
  if (groups.length > MOST_COMPARED)
    return unavailable(sample, `There are ${groups.length} groups; at most ${MOST_COMPARED} are compared.`);
  const own = headOf(sample);
  const head = asked.censored ? { ...own, notes: own.notes.filter(({ code }) => code !== 'beyond-limit') } : own;
  const empty = samples.length - groups.length;
  return {
    groups,
    head: {
      ...head,
      notes: [
        ...head.notes,
        ...(without
          ? [
              {
                code: 'no-label',
                text: `${plural(without, 'reading has', 'readings have')} no ${by} and ${without === 1 ? 'is' : 'are'} left out.`,
              },
            ]
          : []),
        ...(empty
          ? [
              {
                code: 'empty-groups',
                text: `${plural(empty, 'group has', 'groups have')} no readings and ${empty === 1 ? 'is' : 'are'} left out.`,
              },
            ]
          : []),
      ],
    },
  };
}

/** In words, that a figure is the same in all groups, and the alternative. */
export function severalWords(figure: string, sample: Sample, groups: readonly Sample[]) {
  const by = sample.groups!.by;
  const of = by === null ? figure : `${figure} of ${sample.name}`;
  const all = by === null ? `the ${groups.length} columns` : `the ${groups.length} groups by ${by}`;
  return { null: `${of} is the same in ${all}`, sought: `${of} differs between ${all}` };
}

/** "Lowest: north, 7.95 mm; highest: south, 8.05 mm". */
export function endsWords(
  groups: readonly { name: string; centre: number }[],
  told: (value: number) => string,
): string {
  const sorted = [...groups].sort((a, b) => a.centre - b.centre);
  const [low, high] = [sorted[0]!, sorted.at(-1)!];
  return `Lowest: ${low.name}, ${told(low.centre)}; highest: ${high.name}, ${told(high.centre)}`;
}
