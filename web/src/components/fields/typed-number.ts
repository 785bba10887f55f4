/** A number as people type it into a field: 8,5 and 8.5, with either minus, blanks within. NaN where it is none. */
export function typedNumber(text: string): number {
  const plain = text
    .replace(/[\s\u00a0\u202f]/g, '')
    .replace('\u2212', '-')
    .replace(',', '.');
  return plain === '' ? NaN : Number(plain);
}
