import type { SentencePart } from '../../road/analysis.js';
import { COUNTS_CLAIM, COUNTS_METHOD } from './counts-settings.js';
import { MEAN_AND_SD_CLAIM, MEAN_AND_SD_METHOD } from './mean-and-sd-claim.js';
import { MEAN_CLAIM, MEAN_METHOD } from './mean-claim.js';
import { MEDIAN_CLAIM, MEDIAN_METHOD } from './median-claim.js';
import { RATE_CLAIM, RATE_METHOD } from './rate-claim.js';
import { SEVERAL_MEANS_CLAIM, SEVERAL_MEANS_METHOD } from './several-means.js';
import { SEVERAL_MEDIANS_CLAIM, SEVERAL_MEDIANS_METHOD } from './several-medians.js';
import { SEVERAL_SPREADS_CLAIM, SEVERAL_SPREADS_METHOD } from './several-spreads.js';
import { SHARE_CLAIM, SHARE_METHOD } from './share-claim.js';
import { SPREAD_CLAIM, SPREAD_METHOD } from './spread-claim.js';
import { TABLE_CLAIM, TABLE_METHOD } from './table-claim.js';
import { TOLERANCE_CLAIM, TOLERANCE_METHOD } from './tolerance.js';
import { TWO_MEANS_CLAIM, TWO_MEANS_METHOD } from './two-means.js';
import { TWO_MEDIANS_CLAIM, TWO_MEDIANS_METHOD } from './two-medians.js';
import { TWO_SHARES_CLAIM, TWO_SHARES_METHOD } from './two-shares.js';
import { TWO_SPREADS_CLAIM, TWO_SPREADS_METHOD } from './two-spreads.js';

/** The method sentence of each claim in its two halves: what is claimed and sought, and how it is looked at. */
export const CLAIM_PARTS = {
  'mean-claim': { claim: MEAN_CLAIM, how: MEAN_METHOD },
  'spread-claim': { claim: SPREAD_CLAIM, how: SPREAD_METHOD },
  'median-claim': { claim: MEDIAN_CLAIM, how: MEDIAN_METHOD },
  'mean-and-sd-claim': { claim: MEAN_AND_SD_CLAIM, how: MEAN_AND_SD_METHOD },
  'share-claim': { claim: SHARE_CLAIM, how: SHARE_METHOD },
  'rate-claim': { claim: RATE_CLAIM, how: RATE_METHOD },
  'counts-claim': { claim: COUNTS_CLAIM, how: COUNTS_METHOD },
  'table-claim': { claim: TABLE_CLAIM, how: TABLE_METHOD },
  'two-means': { claim: TWO_MEANS_CLAIM, how: TWO_MEANS_METHOD },
  'two-medians': { claim: TWO_MEDIANS_CLAIM, how: TWO_MEDIANS_METHOD },
  'two-spreads': { claim: TWO_SPREADS_CLAIM, how: TWO_SPREADS_METHOD },
  'two-shares': { claim: TWO_SHARES_CLAIM, how: TWO_SHARES_METHOD },
  'several-means': { claim: SEVERAL_MEANS_CLAIM, how: SEVERAL_MEANS_METHOD },
  'several-medians': { claim: SEVERAL_MEDIANS_CLAIM, how: SEVERAL_MEDIANS_METHOD },
  'several-spreads': { claim: SEVERAL_SPREADS_CLAIM, how: SEVERAL_SPREADS_METHOD },
  tolerance: { claim: TOLERANCE_CLAIM, how: TOLERANCE_METHOD },
} as const satisfies Record<string, { claim: readonly SentencePart[]; how: readonly SentencePart[] }>;
export type ClaimId = keyof typeof CLAIM_PARTS;
