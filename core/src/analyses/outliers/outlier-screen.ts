import { MOST_SCREENED } from '../../road/groups.js';
import { z } from 'zod';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyEmpty } from '../../road/cautions.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting, quantileTypeSetting } from '../../road/settings.js';
import { judgedParts, lookedPart, partOrders } from './outlier-parts.js';
import { outlierScreenFinding, outlierScreenNotes, type OutlierScreenResult } from './outlier-screen-words.js';
import { familyOf, mostSetting, RULE_PARTS } from './outliers-settings.js';
import { ruleSetting, sideSetting } from './rule-facts.js';

const replicates = replicatesOf('replicates of clean samples of each size');
const seed = seedOf('seed of the clean samples of each size');

const request = z
  .strictObject({
    column: columnSetting,
    split: columnSetting.optional(),
    beside: z
      .array(columnSetting)
      .min(1)
      .max(MOST_SCREENED - 1, `At most ${MOST_SCREENED} columns are looked at together.`)
      .optional(),
    side: sideSetting.schema,
    rule: ruleSetting.schema,
    most: mostSetting.schema,
    family: familyOf.schema,
    alpha: alphaSetting,
    quantileType: quantileTypeSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(({ split, beside }) => split === undefined || beside === undefined, {
    message: 'Groups of one column, or several columns: not both.',
    path: ['beside'],
  });
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Ask of each of ',
  { subject: true },
  ' which readings lie too far out ',
  sideSetting.field,
  ' for a ',
  familyOf.field,
  ', by ',
  ...RULE_PARTS,
  ', with p from ',
  replicates.field,
  ' clean samples, seed ',
  seed.field,
  ', the level shared among them by Holm’s steps.',
];

/** Many columns or groups at once: how many readings the rule of the study names in each, the level shared among them. */
export const outlierScreenAnalysis = defineAnalysis<Request, OutlierScreenResult>({
  id: 'outlier-screen',
  version: 1,
  name: 'Outliers in many columns',
  title: 'in which of many columns or groups readings lie too far out',
  request,
  method,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  subject: ({ column, split, beside }) =>
    split !== undefined
      ? `${column} by ${split}`
      : beside
        ? beside.length < 4
          ? [column, ...beside].join(', ')
          : `${beside.length + 1} columns from ${column} on`
        : column,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const groups = sample.groups?.samples ?? [sample];
    if (groups.length === 0) return unavailable(sample, whyEmpty(sample));
    const looked = groups.slice(0, MOST_SCREENED).map((part) => lookedPart(part, settings));
    const { missing, setAside, values } = sample;
    const cut: Note[] =
      groups.length > MOST_SCREENED
        ? [
            {
              code: 'many-groups',
              text: `There are ${groups.length} groups: the first ${MOST_SCREENED} are looked at.`,
            },
          ]
        : [];
    const base: OutlierScreenResult = {
      ...{ available: true, n: values.length, missing, setAside, alpha: settings.alpha, by: sample.groups?.by ?? null },
      ...{ rule: settings.rule, side: settings.side, parts: looked.map(({ part }) => part), notes: cut },
    };
    const withNotes = (result: OutlierScreenResult) => ({ ...result, notes: [...cut, ...outlierScreenNotes(result)] });
    const { orders, places } = partOrders(settings, looked);
    if (orders.length === 0) return withNotes(base);
    const answers = yield { partial: withNotes(base), orders };
    return withNotes({ ...base, parts: judgedParts(settings, looked, places, answers) });
  },
  finding: outlierScreenFinding,
});
