import { z } from 'zod';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyEmpty } from '../../road/cautions.js';
import { NOT_BOTH, notBoth, severalOf, severalSettings, severalWords } from '../../road/several.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, quantileTypeSetting } from '../../road/settings.js';
import { judgedParts, lookedPart, partOrders } from './outlier-parts.js';
import { outlierScreenFinding, outlierScreenNotes, type OutlierScreenResult } from './outlier-screen-words.js';
import { familyOf, mostSetting, RULE_PARTS } from './outliers-settings.js';
import { ruleSetting, sideSetting } from './rule-facts.js';

const replicates = replicatesOf('simulated clean samples per size');
const seed = seedOf('seed of the clean samples');

const request = z
  .strictObject({
    ...severalSettings,
    side: sideSetting.schema,
    rule: ruleSetting.schema,
    most: mostSetting.schema,
    family: familyOf.schema,
    alpha: alphaSetting,
    quantileType: quantileTypeSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(notBoth, NOT_BOTH);
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Test each of ',
  { subject: true },
  ' for outliers ',
  sideSetting.field,
  ', assuming a ',
  familyOf.field,
  ', by ',
  ...RULE_PARTS,
  ', p from ',
  replicates.field,
  ' clean samples, seed ',
  seed.field,
  ', adjusted for the number of tests (Holm).',
];

/** Many columns or groups at once: how many readings the rule of the study names in each, the level shared among them. */
export const outlierScreenAnalysis = defineAnalysis<Request, OutlierScreenResult>({
  id: 'outlier-screen',
  version: 2,
  name: 'Outliers in many columns',
  title: 'which of many columns or groups contain outliers',
  request,
  method,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  subject: severalWords,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const { parts, cut } = severalOf(sample);
    if (parts.length === 0) return unavailable(sample, whyEmpty(sample));
    const looked = parts.map((part) => lookedPart(part, settings));
    const { missing, setAside, values } = sample;
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
