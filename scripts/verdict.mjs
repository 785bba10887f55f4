/** `npm run --silent verdict -- …`: the command line, from the build. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { lockHolder } from './lock.mjs';
import { readSecret } from './secret.mjs';
import { build, ensurePackages, ROOT } from './setup.mjs';
import { surroundings } from './surroundings.mjs';

// Standard output belongs to the result.
console.log = console.error;
ensurePackages();
build();
const { main } = await import(pathToFileURL(join(ROOT, 'cli/dist/main.js')).href);
/** The Verdict that runs on VERDICT_HOME. */
function running() {
  const { home } = surroundings(process.env, ROOT);
  const url = lockHolder(home)?.url;
  return url ? { url, token: readSecret(home) } : null;
}
const output = { out: (text) => process.stdout.write(text), error: (text) => process.stderr.write(text) };
process.exitCode = await main(process.argv.slice(2), output, running);
