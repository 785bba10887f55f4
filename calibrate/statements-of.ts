/** The statements whose codes are named, measured one after the other; tells its parent how many cases are over their allowance. */
import { isOver, STATEMENT_KINDS } from './statements/index.ts';

/** So many times the samples of the slice that runs with the tests. */
const THOROUGH = 10;

let over = 0;
for (const { code, allowed, measure } of STATEMENT_KINDS.filter((kind) => process.argv.includes(kind.code))) {
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
process.send?.(over);
