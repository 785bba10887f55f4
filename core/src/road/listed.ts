/** "a", "a and b", "a, b and c"; or with "or". */
export const listed = (words: readonly string[], last: 'and' | 'or' = 'and'): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)!}`;
