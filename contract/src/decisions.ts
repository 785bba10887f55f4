/** What can be decided of readings, and in which words. */
export const DECISIONS = ['treat-as-normal', 'do-not-treat-as-normal', 'not-settled'] as const;
export type Decision = (typeof DECISIONS)[number];
export const DECISION_WORDS: Record<Decision, string> = {
  'treat-as-normal': 'treat as normal',
  'do-not-treat-as-normal': 'do not treat as normal',
  'not-settled': 'not settled',
};
