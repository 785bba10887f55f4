/**
 * `npm test`: sets up what is missing and runs every check; the last line counts. `npm test -- lint unit` runs only those parts.
 * A failed check prints what it printed; nothing is skipped because of it.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeTemplate } from './mariadb.mjs';
import { ensureBackups, ensureChromium, giveUp, ensureMariaDb, ensurePackages, ROOT } from './setup.mjs';

const started = Date.now();
const only = process.argv.slice(2);
ensurePackages();
ensureMariaDb();
ensureBackups();
ensureChromium();

const reports = mkdtempSync(join(tmpdir(), 'verdict-test-'));
// Twenty databases are set up by the tests: one is made, the others are copies.
process.env.VERDICT_DATABASE_TEMPLATE = makeTemplate(join(reports, 'template'));
const bin = (tool) => join(ROOT, 'node_modules/.bin', tool);
let passed = 0;
let failed = 0;

function run(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    child.stdout.on('data', (text) => (output += text));
    child.stderr.on('data', (text) => (output += text));
    child.on('error', (error) => resolve({ code: 1, output: String(error) }));
    child.on('close', (code) => resolve({ code, output }));
  });
}

const readReport = (file) => {
  try {
    return JSON.parse(readFileSync(join(reports, file), 'utf8'));
  } catch {
    return null;
  }
};

/** One check: counted as one, or by its own report where it has one. */
async function check(name, why, command, args, { env, count } = {}) {
  if (only.length > 0 && !only.includes(name)) return;
  const since = Date.now();
  const { code, output } = await run(command, args, env);
  const counts = count?.() ?? { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 };
  // A runner that failed without a failing test (a crash, a broken import) is a failure too.
  if (code !== 0 && counts.failed === 0) counts.failed = 1;
  passed += counts.passed;
  failed += counts.failed;
  const seconds = ((Date.now() - since) / 1000).toFixed(1);
  console.log(
    `${code === 0 ? 'ok    ' : 'FAILED'} ${name}: ${counts.passed} passed, ${counts.failed} failed (${seconds} s)`,
  );
  if (code !== 0) console.log(`${why}\n${output}`);
}

const fromVitest = (file) => () => {
  const report = readReport(file);
  return report && { passed: report.numPassedTests, failed: report.numFailedTests };
};
const fromPlaywright = () => {
  const stats = readReport('browser.json')?.stats;
  return stats && { passed: stats.expected + stats.flaky, failed: stats.unexpected };
};

const packages = ['core', 'contract', 'server', 'web', 'cli'].map((name) => `${name}/src`);
async function built() {
  const { code, output } = await run(process.execPath, ['scripts/build.mjs']);
  if (code !== 0) giveUp(output);
  process.stdout.write(output);
}
/** What only reads the files goes beside the build, one for each core of a small machine. */
await Promise.all([
  (async () => {
    await built();
    // Against the declarations of the packages that were just built: they need not be checked once more.
    const web = ['--noEmit', '-p', 'web/tsconfig.check.json'];
    await check('types-web', 'The page, templates included.', bin('vue-tsc'), web);
    await check('types', 'The packages and their tests, strict.', bin('tsc'), ['-p', 'tsconfig.tests.json']);
  })(),
  (async () => {
    const why = 'See the rule named in each line, and eslint.config.js for why.';
    await check('lint', why, bin('eslint'), ['.', '--max-warnings', '0']);
    await check('unused', 'Files, exports and packages that nothing uses: knip.json.', bin('knip'), []);
    const licences = ['scripts/licences.mjs', '--check'];
    await check(
      'licences',
      'The packages that Verdict is delivered with: npm run licences.',
      process.execPath,
      licences,
    );
    await check('format', 'One layout for all files; `npm run format` writes it.', bin('prettier'), ['--check', '.']);
    await check('imports', 'Imports go downward only: docs/architecture.md says why.', bin('depcruise'), packages);
  })(),
]);
const vitest = (file, projects) => [
  ...['run', '--reporter=default', '--reporter=json', `--outputFile.json=${join(reports, file)}`],
  ...projects.flatMap((project) => ['--project', project]),
];
// By itself vitest leaves one of two cores idle.
const unit = [
  ...vitest('unit.json', ['core', 'contract', 'web', 'mocked', 'cli', 'scripts', 'words']),
  '--maxWorkers=2',
];
/** The tests of the server wait more than they work: they go beside the others. */
await Promise.all([
  check('unit', 'Tests of the packages.', bin('vitest'), unit, { count: fromVitest('unit.json') }),
  check('server', 'The server on a real MariaDB.', bin('vitest'), vitest('server.json', ['server']), {
    count: fromVitest('server.json'),
  }),
]);
await check(
  'browser',
  'What an analyst does, in Chromium against the built page.',
  bin('playwright'),
  ['test', '-c', 'e2e/playwright.config.ts'],
  {
    env: { PLAYWRIGHT_JSON_OUTPUT_NAME: join(reports, 'browser.json') },
    count: fromPlaywright,
  },
);

rmSync(reports, { recursive: true, force: true });
console.log(`Took ${Math.round((Date.now() - started) / 1000)} s.`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
