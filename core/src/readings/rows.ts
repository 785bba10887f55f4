import Papa from 'papaparse';
import type { Separator } from './layout.js';

const DELIMITER: Record<Exclude<Separator, 'blanks' | 'none'>, string> = { tab: '\t', comma: ',', semicolon: ';' };

const LINE_BREAK = /\r\n|\n|\r/;

/** Cuts a text into rows of cells. A byte order mark, CRLF and trailing empty lines are dropped; quoted cells may hold line breaks. */
export function splitRows(text: string, separator: Separator): string[][] {
  const body = text.replace(/^\ufeff/, '').replace(/[\r\n]+$/, '');
  if (body.trim() === '') return [];
  if (separator === 'none') return body.split(LINE_BREAK).map((line) => [line]);
  if (separator === 'blanks') {
    const lines = body.split(LINE_BREAK).filter((line) => line.trim() !== '');
    return lines.map((line) => line.trim().split(/[ \t]+/));
  }
  return Papa.parse<string[]>(body, { delimiter: DELIMITER[separator] }).data;
}
