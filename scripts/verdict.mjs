/** `npm run --silent verdict -- …`: the command line, from the build. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, ensurePackages, ROOT } from './setup.mjs';

// Standard output belongs to the result.
console.log = console.error;
ensurePackages();
build();
const { main } = await import(pathToFileURL(join(ROOT, 'cli/dist/main.js')).href);
process.exitCode = await main(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  error: (text) => process.stderr.write(text),
});
