/** A figure with a decimal point, that is neither part of a word nor of a longer row of points, such as a version. */
const FIGURE = /(?<![\w.])(\d+)\.(\d+)(?![\w]|\.\d)/g;

/** The decimal mark of a language. */
export function decimalMark(locale: string | undefined): string {
  const parts = new Intl.NumberFormat(locale).formatToParts(1.5);
  return parts.find(({ type }) => type === 'decimal')?.value ?? '.';
}

/** A text as it is shown: its figures with the decimal mark of the reader. What is saved keeps the point. */
export function inLocale(text: string, mark: string): string {
  return mark === '.'
    ? text
    : text.replace(FIGURE, (_, whole: string, decimals: string) => `${whole}${mark}${decimals}`);
}
