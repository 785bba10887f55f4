import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Plugin } from 'vite';

const FOLDER = fileURLToPath(new URL('../../core/src/analyses', import.meta.url));
const DEFINED = /defineAnalysis[\s\S]*?\(\s*\{\s*id: '([\w-]+)'/g;

/** The ids of all analyses, each with its folder in the core. */
export function foldersOfAnalyses(): Record<string, string> {
  const folders = readdirSync(FOLDER, { withFileTypes: true }).filter((entry) => entry.isDirectory());
  return Object.fromEntries(
    folders.flatMap(({ name: folder }) =>
      readdirSync(join(FOLDER, folder)).flatMap((file) =>
        [...readFileSync(join(FOLDER, folder, file), 'utf8').matchAll(DEFINED)].map(([, id]) => [id!, folder]),
      ),
    ),
  );
}

const NAME = 'virtual:analyses';

/** Tells the page which folder an analysis stands in, without loading any of them: `virtual:analyses`. */
export const analyses = (): Plugin => ({
  name: 'folders-of-analyses',
  resolveId: (id) => (id === NAME ? `\0${NAME}` : null),
  load: (id) => (id === `\0${NAME}` ? `export default ${JSON.stringify(foldersOfAnalyses())}` : null),
});
