import { extremeness } from '../../goodness-of-fit/normality/battery.js';
import { simulatedP } from '../../goodness-of-fit/simulated-p.js';
import { defineAnalysis } from '../../road/analysis.js';
import { subjectWords } from '../../road/groups.js';
import { foundParts, isInParts, runInParts, type InParts } from '../../road/in-parts.js';
import { affordableReplicates } from '../../road/settings.js';
import { mainTest, type NormalityResult } from './normality-result.js';
import { normalityRequest, normalitySentence, type NormalityRequest } from './normality-settings.js';
import { testedForNormality } from './normality-tested.js';
import { normalityFinding } from './normality-words.js';
import { testsFinding } from './parts-words.js';

/** The p that a part is judged by. */
const pOfPart = (result: NormalityResult): number | null => {
  const { pValue, pResolution } = mainTest(result);
  return result.summary.outcome === 'rounding' ? pResolution!.pValue : pValue;
};

/** Does the column follow a normal distribution? Nine tests, one of which was chosen (STATISTICS section 5); of each part by itself where it is split. */
export const normalityAnalysis = defineAnalysis<NormalityRequest, NormalityResult | InParts<NormalityResult>>({
  id: 'normality',
  version: 6,
  name: 'Normality test',
  title: 'test of a normal distribution (nine tests, one chosen in advance)',
  request: normalityRequest,
  method: normalitySentence,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? affordableReplicates(sample.values.length, 20_000, 1_000),
  }),
  subject: subjectWords,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    return sample.groups
      ? yield* runInParts(sample, (part) => testedForNormality(settings, part))
      : yield* testedForNormality(settings, sample);
  },
  glimpse(settings, partial, soFar) {
    if (isInParts(partial)) return partial;
    const test = mainTest(partial);
    // The plain replicates are ordered first.
    const plain = soFar[0] ?? [];
    if (test?.statistic === null || test === undefined || plain.length === 0) return partial;
    // The words rest on the formula until all is known: they must not change their mind while it runs.
    const pSimulated = simulatedP(extremeness(test.test, test.statistic), plain, settings.seed);
    return { ...partial, tests: partial.tests.map((one) => (one === test ? { ...one, pSimulated } : one)) };
  },
  finding(result) {
    if (!isInParts(result)) return normalityFinding(result);
    const found = foundParts(result);
    const tests = found.map(({ name, result: own }) => ({ name, p: pOfPart(own) }));
    return testsFinding(result, tests, 'a normal distribution', found[0]?.result.alpha ?? 0.05);
  },
});
