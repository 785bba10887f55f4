import {
  CLAIM_ANALYSES,
  CLAIM_PARTS,
  toleranceAnalysis,
  type ClaimId,
  type ClaimResult,
  type ToleranceResult,
} from '@verdict/core/analyses';
import type { Analysis, Settings } from '@verdict/core/road';

/** A claim on the page: its request is private to it. */
export type ClaimAnalysis = Analysis<Settings, ClaimResult | ToleranceResult>;

export const claimOf = (id: ClaimId): ClaimAnalysis =>
  CLAIM_ANALYSES.find((analysis) => analysis.id === id) ?? toleranceAnalysis;

export const isClaimId = (id: string): id is ClaimId => id in CLAIM_PARTS;
export const isTolerance = (result: ClaimResult | ToleranceResult): result is ToleranceResult => 'share' in result;
