import { isOver, STATEMENT_KINDS } from './statements/index.ts';

/** A slice of this size runs with the tests; so many times as many samples here. */
const THOROUGH = 10;

/** Every kind of statement over its matrix: the share of false ones beside what is allowed, and the worst case of each. */
export async function calibrateStatements(): Promise<boolean> {
  let over = 0;
  console.log('statement | false | of | allowed | worst case');
  for (const { code, allowed, measure } of STATEMENT_KINDS) {
    const found = await measure(THOROUGH);
    const bad = found.filter((one) => isOver(one, allowed));
    const sum = (of: (one: (typeof found)[number]) => number) => found.reduce((total, one) => total + of(one), 0);
    const worst = found.reduce((most, one) => (one.false / one.of > most.false / most.of ? one : most));
    console.log(
      `${code} | ${sum((one) => one.false)} | ${sum(({ of }) => of)} | ${allowed} | ${worst.case}: ${(worst.false / worst.of).toFixed(3)} of ${worst.of}`,
    );
    for (const one of bad) console.log(`  OVER ${one.case}: ${(one.false / one.of).toFixed(3)} of ${one.of}`);
    over += bad.length;
  }
  console.log(`${over} lines over their allowance`);
  return over === 0;
}
