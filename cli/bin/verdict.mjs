#!/usr/bin/env node
/** `npx verdict …`: the command line, from one bundled file that is made anew only when its sources have changed. The page is never built. */
import { pathToFileURL } from 'node:url';
import { bundleCommandLine } from '../../scripts/bundle.mjs';
import { lockHolder } from '../../scripts/lock.mjs';
import { readSecret } from '../../scripts/secret.mjs';
import { ensurePackages, ROOT } from '../../scripts/setup.mjs';
import { surroundings } from '../../scripts/surroundings.mjs';

// Standard output belongs to the result.
console.log = console.error;
// A reader that has seen enough, such as head, closes its end: nothing is left to do.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (error) => {
    if (error.code !== 'EPIPE') throw error;
    process.exit();
  });
ensurePackages();
const { main } = await import(pathToFileURL(await bundleCommandLine()).href);
/** The Verdict that runs on VERDICT_HOME. */
function running() {
  const { home } = surroundings(process.env, ROOT);
  const url = lockHolder(home)?.url;
  return url ? { url, token: readSecret(home) } : null;
}
const output = { out: (text) => process.stdout.write(text), error: (text) => process.stderr.write(text) };
process.exitCode = await main(process.argv.slice(2), output, running);
