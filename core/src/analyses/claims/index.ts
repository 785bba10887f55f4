import { claimDrawsAnalysis } from './claim-draws.js';
import { claimScreenAnalysis } from './claim-screen.js';
import { countsClaimAnalysis } from './counts-claim.js';
import { meanAndSdClaimAnalysis } from './mean-and-sd-claim.js';
import { meanClaimAnalysis } from './mean-claim.js';
import { medianClaimAnalysis } from './median-claim.js';
import { rateClaimAnalysis } from './rate-claim.js';
import { severalMeansAnalysis } from './several-means.js';
import { severalMediansAnalysis } from './several-medians.js';
import { severalSpreadsAnalysis } from './several-spreads.js';
import { shareClaimAnalysis } from './share-claim.js';
import { spreadClaimAnalysis } from './spread-claim.js';
import { tableClaimAnalysis } from './table-claim.js';
import { toleranceAnalysis } from './tolerance.js';
import { twoMeansAnalysis } from './two-means.js';
import { twoMediansAnalysis } from './two-medians.js';
import { twoSharesAnalysis } from './two-shares.js';
import { twoSpreadsAnalysis } from './two-spreads.js';

/** Each tests one claim. */
export const CLAIM_ANALYSES = [
  meanClaimAnalysis,
  spreadClaimAnalysis,
  medianClaimAnalysis,
  meanAndSdClaimAnalysis,
  shareClaimAnalysis,
  rateClaimAnalysis,
  countsClaimAnalysis,
  tableClaimAnalysis,
  twoMeansAnalysis,
  twoSpreadsAnalysis,
  twoMediansAnalysis,
  twoSharesAnalysis,
  severalMeansAnalysis,
  severalMediansAnalysis,
  severalSpreadsAnalysis,
] as const;

/** The analyses of the stage Claims. */
export const CLAIMS = [...CLAIM_ANALYSES, toleranceAnalysis, claimScreenAnalysis, claimDrawsAnalysis] as const;
