/**
 * `npm run calibrate -- engines`: the lines of core/test/bits.json in an engine that shares no code with Node's (Debian's gjs, SpiderMonkey). Evidence has to
 * recompute in any browser.
 */
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BITS_CASES } from '../core/test/bits-cases.ts';

const file = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const MOST_OUTPUT = 1 << 26;

/** Readings as a literal that any engine reads to the same bits. */
const literal = (value: unknown): string => {
  if (ArrayBuffer.isView(value)) {
    const numbers = Array.from(value as Float64Array, (x) => (Object.is(x, -0) ? '-0' : String(x)));
    return `${value.constructor.name}.of(${numbers.join(',')})`;
  }
  if (Array.isArray(value)) return `[${value.map(literal).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'undefined';
  const fields = Object.entries(value).map(([key, inner]) => `${JSON.stringify(key)}:${literal(inner)}`);
  return `{${fields.join(',')}}`;
};

/** The digests that the other engine prints, by the key of their line. */
async function printedBy(engine: string): Promise<Map<string, string>> {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-engine-'));
  try {
    const program = join(dir, 'bits.js');
    await build({
      entryPoints: [file('engine-program.ts')],
      outfile: program,
      bundle: true,
      platform: 'neutral',
      mainFields: ['module', 'main'],
      format: 'esm',
      target: 'es2022',
      conditions: ['source', 'import', 'default'],
      logLevel: 'error',
      banner: { js: `globalThis.CASES = ${literal(BITS_CASES)};` },
    });
    const { stdout, stderr, status, error } = spawnSync(engine, ['-m', program], {
      encoding: 'utf8',
      maxBuffer: MOST_OUTPUT,
    });
    if (status !== 0) throw new Error(`${engine} ended with ${status}: ${error?.message ?? stderr}`);
    return new Map(stdout.split('\n').flatMap((line) => (line ? [JSON.parse(line) as [string, string]] : [])));
  } finally {
    rmSync(dir, { recursive: true });
  }
}

/** Compares them with the recorded ones; false where one differs or is missing. */
export async function calibrateEngines(): Promise<boolean> {
  if (spawnSync('gjs', ['--version']).error) {
    console.log('engines: not compared, because gjs is not installed (apt-get install gjs).');
    return false;
  }
  const recorded = JSON.parse(readFileSync(file('../core/test/bits.json'), 'utf8')) as Record<string, string>;
  const printed = await printedBy('gjs');
  const differing = BITS_CASES.filter(({ key }) => printed.get(key) !== recorded[key]);
  for (const { key } of differing) console.log(`engines: ${key} differs: ${printed.get(key) ?? 'no result'}`);
  console.log(
    `engines: ${BITS_CASES.length - differing.length} of ${BITS_CASES.length} results have the same bits in gjs`,
  );
  return differing.length === 0;
}
