import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { STATEMENT_KINDS } from './statements/index.ts';

const CHILD = fileURLToPath(new URL('statements-of.ts', import.meta.url));

/** Measures some kinds in a process of their own; how many cases are over their allowance. */
const measured = (codes: readonly string[]): Promise<number> =>
  new Promise((resolve, reject) => {
    const child = fork(CHILD, codes);
    let over: number | null = null;
    child.on('message', (count) => (over = Number(count)));
    child.on('exit', (code) => (over === null ? reject(new Error(`It ended early, with ${code}.`)) : resolve(over)));
  });

/** Every kind of statement over its matrix, on two cores: the share of false ones beside what is allowed, and the worst case of each. */
export async function calibrateStatements(): Promise<boolean> {
  const since = Date.now();
  console.log('statement | false | of | allowed | worst case');
  // What finds evidence takes as long as all the others together.
  const others = STATEMENT_KINDS.map(({ code }) => code).filter((code) => code !== 'evidence');
  const counts = await Promise.all([measured(['evidence']), measured(others)]);
  const over = counts.reduce((a, b) => a + b);
  console.log(`${over} lines over their allowance, in ${Math.round((Date.now() - since) / 60_000)} minutes`);
  return over === 0;
}
