/** What a study may be about. The question leads; it forces nothing. */
export const QUESTIONS = ['normal', 'family', 'outlier', 'claim', 'differ', 'sure', 'how-many'] as const;
export type AskedKind = (typeof QUESTIONS)[number];

/** The questions as an analyst asks them. */
export const QUESTION_WORDS: Record<AskedKind, string> = {
  normal: 'May I treat it as normal?',
  family: 'Which distribution is it?',
  outlier: 'Is that reading an outlier?',
  claim: 'Is the claim true?',
  differ: 'Do these differ?',
  sure: 'How precise is this result?',
  'how-many': 'How many readings do I need?',
};

/** What can be decided, and in which words; a family takes the place of the dots. */
export const DECISION_WORDS = {
  'treat-as-normal': 'treat as normal',
  'do-not-treat-as-normal': 'do not treat as normal',
  'treat-as-family': 'treat as …',
  'no-family-fits': 'no distribution fits well enough',
  'set-aside': 'set the outliers aside',
  'keep-readings': 'keep all readings',
  'claim-shown': 'the claim is supported',
  'claim-not-shown': 'there is no evidence for the claim',
  'claim-refuted': 'the claim is refuted',
  'claim-close-enough': 'the claim holds within the margin',
  differ: 'they differ',
  'no-difference-shown': 'no evidence of a difference',
  'alike-enough': 'they are equivalent',
  'sure-enough': 'the result is precise enough',
  'not-sure-enough': 'the result is not precise enough',
  'enough-readings': 'the number of readings is enough',
  'more-readings': 'more readings are needed',
  'not-settled': 'not settled',
} as const;
export type Decision = keyof typeof DECISION_WORDS;
export const DECISIONS = Object.keys(DECISION_WORDS) as [Decision, ...Decision[]];

/** The possible decisions for each question; “not settled” for any. Without a question, those of the first question. */
const OF_QUESTION: Record<AskedKind, readonly Decision[]> = {
  normal: ['treat-as-normal', 'do-not-treat-as-normal', 'treat-as-family'],
  family: ['treat-as-family', 'treat-as-normal', 'no-family-fits'],
  outlier: ['set-aside', 'keep-readings'],
  claim: ['claim-shown', 'claim-not-shown', 'claim-refuted', 'claim-close-enough'],
  differ: ['differ', 'no-difference-shown', 'alike-enough'],
  sure: ['sure-enough', 'not-sure-enough'],
  'how-many': ['enough-readings', 'more-readings'],
};
export const decisionsOf = (asks: AskedKind | null): readonly Decision[] => [
  ...OF_QUESTION[asks ?? 'normal'],
  'not-settled',
];

/** A decision in words, with the family it names. */
export const decisionWords = (decision: Decision, family: string | null): string =>
  decision === 'treat-as-family' && family !== null ? `treat as ${family}` : DECISION_WORDS[decision];
