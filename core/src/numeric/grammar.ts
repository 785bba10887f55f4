import { groupThousands } from './format.js';

/** "1 reading", "12 000 readings"; the many where they are irregular, or come with a verb: plural(n, 'row has', 'rows have'). */
export const plural = (count: number, one: string, many = pluralOf(one)): string =>
  `${groupThousands(count)} ${count === 1 ? one : many}`;

const pluralOf = (noun: string): string => {
  if (/[^aeiou]y$/.test(noun)) return `${noun.slice(0, -1)}ies`;
  return /(s|x|ch|sh)$/.test(noun) ? `${noun}es` : `${noun}s`;
};

/** "a", "a and b", "a, b and c"; or with "or". */
export const listed = (words: readonly string[], last: 'and' | 'or' = 'and'): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)!}`;

/** The indefinite article of a word, by its sound: numbers and single letters included. */
export const articleOf = (word: string): 'a' | 'an' => (startsWithVowelSound(word) ? 'an' : 'a');

/** "a normal", "an exponential", "a uniform", "an F", "an 80 %". */
export const article = (word: string): string => `${articleOf(word)} ${word}`;

function startsWithVowelSound(word: string): boolean {
  const [first = ''] = /[\p{L}\p{N}]+/u.exec(word) ?? [];
  if (/^(8|11$|18$|11\D|18\D)/.test(first)) return true;
  if (/^[A-Z]$/.test(first)) return 'AEFHILMNORSX'.includes(first);
  if (/^(uni|use|eu|one)/i.test(first)) return false;
  if (/^hour|^honest/i.test(first)) return true;
  return /^[aeiou]/i.test(first);
}

/** The first letter as a capital: the beginning of a sentence. */
export const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
