import { readXml } from './xml.js';

/** Number formats that a workbook names by number only (ISO/IEC 29500-1, 18.8.30). */
const BUILT_IN: Record<number, string> = {
  ...{ 1: '0', 2: '0.00', 3: '#,##0', 4: '#,##0.00', 9: '0%', 10: '0.00%', 11: '0.00E+00', 12: '# ?/?', 13: '# ??/??' },
  ...{ 14: 'mm-dd-yy', 15: 'd-mmm-yy', 16: 'd-mmm', 17: 'mmm-yy', 18: 'h:mm AM/PM', 19: 'h:mm:ss AM/PM', 20: 'h:mm' },
  ...{ 21: 'h:mm:ss', 22: 'm/d/yy h:mm', 37: '#,##0', 38: '#,##0', 39: '#,##0.00', 40: '#,##0.00', 45: 'mm:ss' },
  ...{ 46: '[h]:mm:ss', 47: 'mmss.0', 48: '##0.0E+0', 49: '@' },
};

/** The number format of each cell style, from the styles of a workbook. */
export function numberFormats(styles: string): string[] {
  const own = new Map<number, string>();
  const formats: string[] = [];
  let inCells = false;
  readXml(styles, {
    open(name, attributes) {
      if (name === 'numFmt') own.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
      else if (name === 'cellXfs') inCells = true;
      else if (name === 'xf' && inCells) {
        const id = Number(attributes.numFmtId ?? 0);
        formats.push(own.get(id) ?? BUILT_IN[id] ?? '');
      }
    },
    close(name) {
      if (name === 'cellXfs') inCells = false;
    },
  });
  return formats;
}

/** True for a format that shows a number as a date or a time of day; a span of time ([h]:mm) is a number of days. */
export function isDateFormat(format: string): boolean {
  if (/\[[hms]+\]/i.test(format)) return false;
  const [positive = ''] = format.replace(/"[^"]*"|\\.|_.|\*.|\[[^\]]*\]/g, '').split(';');
  return /[dmyhs]/i.test(positive) && !/general/i.test(positive);
}

const DAY = 86_400_000;

/** The day that a sheet means by a number. Its calendar has a 29 February 1900, which there was not; some count from 1904 on. */
export function dateOf(serial: number, from1904: boolean): Date {
  const days = from1904 ? serial + 1462 : serial < 60 ? serial + 1 : serial;
  return new Date(Math.round((days - 25_569) * DAY));
}
