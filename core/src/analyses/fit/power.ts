import { fitCost } from '../../distributions/fit/fit-cost.js';
import { defineAnalysis } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyNot, whyNotEven } from '../../road/cautions.js';
import { affordableReplicates } from '../../road/settings.js';
import { fittingOf } from './family-settings.js';
import { familiesPower } from './power-families.js';
import { normalPower } from './power-normal.js';
import type { PowerResult } from './power-result.js';
import { isPlain, leastNOf, powerRequest, powerSentence, type PowerRequest as Request } from './power-settings.js';
import { powerFinding } from './power-words.js';

/** Others are drawn for every n and every family. */
function usualReplicates(settings: Request, n: number): number {
  if (isPlain(settings)) return affordableReplicates(n, 1_000, 199);
  return affordableReplicates(n, Math.min(1_000, fitCost(fittingOf(settings)).replicates / 4), 199);
}

/** What a sample of this size could have missed, and how many readings would notice it. */
export const powerAnalysis = defineAnalysis<Request, PowerResult>({
  id: 'power',
  version: 2,
  name: 'Power of the test',
  title: 'power of a test of fit at this sample size, and the sample size needed',
  request: powerRequest,
  method: powerSentence,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? usualReplicates(settings, sample.values.length),
  }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    // Of an estimated normal only the number of readings is asked, not what they are.
    const why = isPlain(settings) ? whyNotEven : whyNot;
    const reason = why(sample, leastNOf(settings), 'the test') ?? whyCensored(sample, 'the test');
    if (reason) return unavailable(sample, reason);
    return isPlain(settings) ? yield* normalPower(settings, sample) : yield* familiesPower(settings, sample);
  },
  finding: powerFinding,
});
