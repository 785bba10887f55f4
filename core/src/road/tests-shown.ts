/** The p of a test, under the names that STATISTICS gives it; that of one part of several has its Holm step beside it. */
const P_OF_TEST = ['pValue', 'pSimulated', 'pExact'] as const;

/** The same test by another way. */
const SAME_TEST = /^(p|p[A-Z].*|formula|exact|drawn)$/;

const isTest = (of: Record<string, unknown>): boolean =>
  P_OF_TEST.some((key) => of[key] !== null && of[key] !== undefined) || (typeof of.p === 'number' && 'pHolm' in of);

/**
 * How many tests a result shows the p of, so that what was kept can be weighed against what was looked at. A test is an object of the result with a p of its own;
 * the several p of one test (by formula, simulated, exact) count once.
 */
export function testsShown(result: unknown): number {
  if (typeof result !== 'object' || result === null || ArrayBuffer.isView(result)) return 0;
  if (Array.isArray(result)) {
    // Long lists hold numbers: draws, places, rows.
    return typeof result[0] === 'object' ? result.reduce<number>((sum, item) => sum + testsShown(item), 0) : 0;
  }
  const of = result as Record<string, unknown>;
  const own = isTest(of);
  return Object.entries(of).reduce(
    (sum, [key, value]) => (own && SAME_TEST.test(key) ? sum : sum + testsShown(value)),
    own ? 1 : 0,
  );
}
