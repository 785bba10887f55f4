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
  sure: 'How sure is this figure?',
  'how-many': 'How many readings do I need?',
};

/** What can be decided, and in which words; a family takes the place of the dots. */
export const DECISION_WORDS = {
  'treat-as-normal': 'treat as normal',
  'do-not-treat-as-normal': 'do not treat as normal',
  'treat-as-family': 'treat as …',
  'no-family-fits': 'no family fits well enough',
  'set-aside': 'set the far readings aside',
  'keep-readings': 'keep all readings',
  'claim-shown': 'the claim is shown',
  'claim-not-shown': 'the claim is not shown',
  'claim-refuted': 'the claim is refuted',
  'claim-close-enough': 'the claim is met closely enough',
  differ: 'they differ',
  'no-difference-shown': 'no difference is shown',
  'alike-enough': 'they are alike enough',
  'sure-enough': 'the figure is sure enough',
  'not-sure-enough': 'the figure is not sure enough',
  'enough-readings': 'so many readings are enough',
  'more-readings': 'more readings are needed',
  'not-settled': 'not settled',
} as const;
export type Decision = keyof typeof DECISION_WORDS;
export const DECISIONS = Object.keys(DECISION_WORDS) as [Decision, ...Decision[]];

/** What may be decided of each question; that it is not settled, of any. Without a question, what was asked first of all. */
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
