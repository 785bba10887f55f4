import { article } from '../../numeric/grammar.js';
import { familyByName } from '../../distributions/registry.js';
import { defineAnalysis } from '../../road/analysis.js';
import { subjectWords } from '../../road/groups.js';
import { foundParts, isInParts, runInParts, type InParts } from '../../road/in-parts.js';
import { affordableReplicates } from '../../road/settings.js';
import { mainFittedTest, type GoodnessOfFitResult } from './goodness-of-fit-result.js';
import { fitRequest, fitSentence, type FitTestRequest } from './goodness-of-fit-settings.js';
import { costOf, testedForFit } from './goodness-of-fit-tested.js';
import { fitFinding } from './goodness-of-fit-words.js';
import { testsFinding } from './parts-words.js';

/** The p that a part is judged by. */
const pOfPart = (result: GoodnessOfFitResult): number | null => {
  const { pValue, pResolution } = mainFittedTest(result);
  return result.outcome === 'rounding' ? pResolution!.pValue : pValue;
};

/** Does the column follow a distribution of any continuous family, estimated or claimed (STATISTICS section 5)? Of each part by itself where it is split. */
export const goodnessOfFitAnalysis = defineAnalysis<FitTestRequest, GoodnessOfFitResult | InParts<GoodnessOfFitResult>>(
  {
    id: 'goodness-of-fit',
    version: 2,
    name: 'Goodness of fit',
    title: 'test of any distribution, with estimated or claimed parameters',
    request: fitRequest,
    method: fitSentence,
    resolve: (settings, sample) => ({
      ...settings,
      replicates: settings.replicates ?? affordableReplicates(sample.values.length, costOf(settings).replicates, 1_000),
    }),
    subject: subjectWords,
    *run(asked, sample) {
      const settings = this.resolve(asked, sample);
      return sample.groups
        ? yield* runInParts(sample, (part) => testedForFit(settings, part))
        : yield* testedForFit(settings, sample);
    },
    finding(result) {
      if (!isInParts(result)) return fitFinding(result);
      const found = foundParts(result);
      const tests = found.map(({ name, result: own }) => ({ name, p: pOfPart(own) }));
      const [first] = found;
      if (!first) return testsFinding(result, tests, '', 0.05);
      const { title } = familyByName(first.result.law.family);
      const against = first.result.claim ? `the claimed ${title} distribution` : `${article(title)} distribution`;
      return testsFinding(result, tests, against, first.result.alpha);
    },
  },
);
