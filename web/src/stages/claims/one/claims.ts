import { ANALYSES, CLAIM_PARTS, type ClaimId, type ClaimResult, type ToleranceResult } from '@verdict/core/analyses';
import type { Analysis, Settings } from '@verdict/core/road';

/** A claim on the page: its request is private to it. */
export type ClaimAnalysis = Analysis<Settings, ClaimResult | ToleranceResult>;

export const claimOf = (id: ClaimId): ClaimAnalysis =>
  ANALYSES.find((analysis) => analysis.id === id) as unknown as ClaimAnalysis;

export const isClaimId = (id: string): id is ClaimId => id in CLAIM_PARTS;
export const isTolerance = (result: ClaimResult | ToleranceResult): result is ToleranceResult => 'share' in result;
