/** `npm run licences`: writes docs/licences.md, the packages that Verdict is delivered with and their licences; `-- --check` fails where the file is not current. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, ROOT } from './setup.mjs';

ensurePackages();
const FILE = join(ROOT, 'docs/licences.md');
const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));

/** Installed packages that are not only needed to build and test. */
const delivered = Object.entries(packages)
  .filter(([path, { dev, link, optional }]) => path.startsWith('node_modules/') && !dev && !link && !optional)
  .map(([path, { version, license }]) => {
    const own = join(ROOT, path, 'package.json');
    const said = existsSync(own) ? JSON.parse(readFileSync(own, 'utf8')) : {};
    const named = license ?? said.license?.type ?? said.license ?? 'not stated';
    return { name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length), version, licence: named };
  })
  .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));

const numbers = new Map();
for (const { licence } of delivered) numbers.set(licence, (numbers.get(licence) ?? 0) + 1);
const counts = [...numbers].sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1));

const text = [
  '# Licences',
  '',
  `Verdict is delivered with ${delivered.length} packages. \`npm run licences\` writes this list from \`package-lock.json\`.`,
  '',
  '| licence | packages |',
  '| --- | --- |',
  ...counts.map(([licence, count]) => `| ${licence} | ${count} |`),
  '',
  '| package | version | licence |',
  '| --- | --- | --- |',
  ...delivered.map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} |`),
  '',
].join('\n');

const { format } = await import('prettier');
const written = await format(text, { parser: 'markdown', printWidth: 160 });
if (!process.argv.includes('--check')) writeFileSync(FILE, written);
else if (!existsSync(FILE) || readFileSync(FILE, 'utf8') !== written) {
  console.error('docs/licences.md is not current: run npm run licences.');
  process.exit(1);
}
