import { describe, expect, it } from 'vitest';
import { articleOf } from '../core/src/numeric/grammar.js';
import { sourceCorpus } from './corpus.js';
import { everythingSaid, type Said } from './said.js';
import { textsOfComponent, textsOfScript } from './source-texts.js';

const golden = (file: string) => `../${file}`;

describe('the texts in the sources', () => {
  it.each([...sourceCorpus()])(
    'of %s are as recorded (npx vitest run --project words -u records a change)',
    async (file, texts) => {
      await expect(texts).toMatchFileSnapshot(golden(file));
    },
  );

  it('are found in scripts and components, and wiring is not', () => {
    const script =
      "import a from 'a b';\nconst x = { code: 'two-words', text: `There are ${n} rows.`, label: 'name' };";
    expect(textsOfScript(script)).toEqual([
      { line: 2, text: 'There are … rows.' },
      { line: 2, text: 'name' },
    ]);
    const component = '<template><p :class="a b" title="All rows">Rows of {{ name }}</p></template>';
    expect(textsOfComponent(component).map(({ text }) => text)).toEqual(['All rows', 'Rows of …']);
  });
});

/** What no sentence may hold: a wrong number, a wrong article, a doubled stop or blank, a figure that is none. */
function faultsIn(text: string): string[] {
  const faults = [
    /(?<![\d.,\u202f−-])1 (readings|columns|rows|samples|groups|bins|values|tests|counts|categories|trials|permutations|replicates)\b/,
    /\b(?!1 )[02-9]\d* (reading|column|row|sample|group|bin|value|test|count|trial|permutation|replicate) (is|was|has)\b/,
    / {2,}|\.\.(?!\.)|,\.|;\.|:\.| [,.;:](?!\d)|\( | \)/,
    /undefined|NaN|Infinity|\[object|null\b(?! (distribution|hypothesis))/,
  ].flatMap((fault) => fault.exec(text)?.[0] ?? []);
  for (const [all, article, word] of text.matchAll(/\b(an?) ([\p{L}\p{N}]+)/gu))
    if (word!.length > 1 && articleOf(word!) !== article) faults.push(all);
  return faults;
}

/** A finding is one sentence of answer and one of numbers. A value and its unit are one word. */
const MOST_WORDS = 45;
const wordsOf = (text: string) => text.split(' ').filter(Boolean).length;
/** Ends of sentences: no decimal points, no abbreviations. */
const sentencesOf = (text: string) => (text.match(/[.!?](?= [\p{Lu}“]|$)/gu) ?? []).length;

describe('what the analyses say of demo and odd columns', () => {
  it('is as recorded, and is grammatical', async () => {
    const all: Said[] = [];
    for await (const one of everythingSaid()) all.push(one);
    const faults = all.flatMap(({ analysis, of, texts }) =>
      texts.flatMap((text) => faultsIn(text).map((fault) => `${analysis}, ${of}: “${fault}” in: ${text}`)),
    );
    expect(faults).toEqual([]);
    const long = all.filter(({ finding }) => wordsOf(finding) > MOST_WORDS).map(({ finding }) => finding);
    expect([...new Set(long)]).toEqual([]);
    const wordy = all.flatMap(({ cautions }) => cautions.filter((text) => sentencesOf(text) > 2));
    expect([...new Set(wordy)]).toEqual([]);
    for (const id of new Set(all.map(({ analysis }) => analysis))) {
      const known = new Set<string>();
      const fresh = (line: string) => !known.has(line) && known.add(line) !== undefined;
      // What was said of a column before is not repeated.
      const own = all.filter(({ analysis }) => analysis === id);
      const texts = own.map(({ of, texts: lines }) =>
        [of, ...lines.filter(fresh).map((line) => `  ${line}`)].join('\n'),
      );
      await expect(`${texts.join('\n')}\n`).toMatchFileSnapshot(golden(`core/test/words/said/${id}.txt`));
    }
  });
});
