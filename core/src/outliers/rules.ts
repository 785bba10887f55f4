/** The outlier rules. The first five have a significance level; the others are rules of thumb. */
export const RULES = [
  'grubbs',
  'pair-same-end',
  'pair-both-ends',
  'dixon',
  'generalized-esd',
  'modified-z',
  'fences',
  'z-score',
] as const;
export type Rule = (typeof RULES)[number];
export type LevelRule = Exclude<Rule, 'modified-z' | 'fences' | 'z-score'>;

const WITHOUT_LEVEL: readonly Rule[] = ['modified-z', 'fences', 'z-score'];
export const hasLevel = (rule: Rule): rule is LevelRule => !WITHOUT_LEVEL.includes(rule);
