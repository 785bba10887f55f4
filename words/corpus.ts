import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { textsOfFile } from './source-texts.js';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Each golden file with the sources whose texts it holds. */
const FILES: Readonly<Record<string, readonly string[]>> = {
  'core/test/words/shape.txt': ['core/src/analyses/shape', 'core/src/describe'],
  'core/test/words/fit.txt': ['core/src/analyses/fit', 'core/src/goodness-of-fit', 'core/src/probability-plot'],
  'core/test/words/outliers.txt': ['core/src/analyses/outliers', 'core/src/outliers'],
  'core/test/words/claims.txt': ['core/src/analyses/claims', 'core/src/claims'],
  'core/test/words/resample.txt': ['core/src/analyses/resample', 'core/src/resampling'],
  'core/test/words/simulate.txt': ['core/src/analyses/simulate', 'core/src/simulation'],
  'core/test/words/distributions.txt': ['core/src/analyses/distributions', 'core/src/distributions'],
  'core/test/words/readings.txt': ['core/src/readings', 'core/src/table', 'core/src/transform'],
  'core/test/words/shared.txt': ['core/src/road', 'core/src/numeric'],
  'web/test/words/stages.txt': ['web/src/stages'],
  'web/test/words/pictures.txt': ['web/src/charts'],
  'web/test/words/help.txt': ['web/src/help', 'web/src/search', 'web/src/path'],
  'web/test/words/report.txt': ['web/src/sheet'],
  'web/test/words/frame.txt': [
    ...['web/src/components', 'web/src/workbench', 'web/src/jobs', 'web/src/files', 'web/src/api', 'web/src/stores'],
    ...['web/src/workers', 'web/src/composables', 'web/src/language', 'web/src/router.ts'],
  ],
  'server/test/words/server.txt': ['server/src'],
  'contract/test/words/contract.txt': ['contract/src'],
  'cli/test/words/cli.txt': ['cli/src'],
};

/** What stands in text files: styles and markup are no words. */
const isMarkup = (text: string) =>
  /^[\s]*</.test(text) || /[{;][\s\S]*[};]/.test(text) || /IBM Plex|GRANT |SELECT/.test(text);

const sourcesOf = (places: readonly string[]): string[] =>
  places
    .flatMap((place) =>
      place.endsWith('.ts')
        ? [place]
        : readdirSync(`${ROOT}${place}`, { recursive: true, encoding: 'utf8' }).map((path) => `${place}/${path}`),
    )
    .filter((path) => /\.(ts|vue)$/.test(path) && !path.endsWith('.d.ts'))
    .sort();

/** Every text in the sources of a golden file, under the name of its source; with the lines they stand on where `placed`. */
function textsUnder(places: readonly string[], placed: boolean): string {
  const parts = sourcesOf(places).flatMap((path) => {
    const texts = textsOfFile(`${ROOT}${path}`).filter(({ text }) => !isMarkup(text));
    if (texts.length === 0) return [];
    const lines = texts.map(({ line, text }) => `${placed ? `${path}:${line}` : ' '} ${text.replaceAll('\n', '⏎')}`);
    return [`${path}\n${lines.join('\n')}\n`];
  });
  return parts.join('\n');
}

/** The texts that stand in the sources, by golden file. */
export const sourceCorpus = ({ placed = false } = {}): ReadonlyMap<string, string> =>
  new Map(Object.entries(FILES).map(([file, places]) => [file, textsUnder(places, placed)]));
