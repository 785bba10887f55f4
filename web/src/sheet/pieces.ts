import { cautionsOf, type Answer, type Evidence } from '@verdict/contract';

/** A caution of a piece of evidence, and its answer. */
export interface Caution {
  text: string;
  answer: Answer | null;
}
export const cautionsWithAnswers = ({ result, answers }: Pick<Evidence, 'result' | 'answers'>): Caution[] =>
  cautionsOf(result).map((text) => ({ text, answer: answers.find(({ to }) => to === text) ?? null }));

/**
 * Evidence in the order of the report: as arranged; a piece without a place follows the last one before it in the order of the stages.
 * @param rank the place of an analysis on the path
 */
export function inOrderOfWork(items: readonly Evidence[], rank: (analysis: string) => number): Evidence[] {
  const ordered = items.filter(({ place }) => place !== null).sort((a, b) => a.place! - b.place!);
  for (const item of items) {
    if (item.place !== null) continue;
    const before = ordered.findLastIndex((other) => rank(other.analysis) <= rank(item.analysis));
    ordered.splice(before + 1, 0, item);
  }
  return ordered;
}

/** The number of viewed tests and of those in the report: among many tests some are significant by chance. Empty without tests. */
export function weighedWords(looked: { results: number; tests: number }, onSheet: number, alpha: number): string {
  const { tests, results } = looked;
  if (tests === 0) return '';
  const where = `in ${results} ${results === 1 ? 'result' : 'results'}`;
  if (tests === 1) return `One test was viewed, ${where}.`;
  const of = onSheet === 0 ? 'none of them is' : onSheet === 1 ? 'one of them is' : `${onSheet} of them are`;
  const byChance = Number((tests * alpha).toPrecision(2));
  return `${tests} tests were viewed ${where}; ${of} in this report. At significance level ${alpha}, about ${byChance} of ${tests} would be below it by chance.`;
}
