import { readCell, type ColumnKind, type NumberFormat } from '@verdict/core';
import office, { type CellValue, type Worksheet } from 'exceljs';
import type { Opened, Sheet } from './incoming.js';
import { shownDate, shownNumber } from './shown-values.js';

/** A cell as its sheet shows it: the result of a formula, a date by its format, text without its dress. */
function shownCell(value: CellValue, format: string): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'number') return shownNumber(value, format);
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return String(value);
  if (value instanceof Date) return shownDate(value, format);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('error' in value) return value.error;
  if ('text' in value) return shownCell(value.text as CellValue, format);
  if ('result' in value) return shownCell(value.result as CellValue, format);
  return '';
}

function readSheet(sheet: Worksheet): Sheet {
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row, i) => {
    const cells: string[] = [];
    row.eachCell({ includeEmpty: false }, (cell, j) => {
      // Of merged cells the first holds the value.
      const own = cell.isMerged && cell.master !== cell ? '' : shownCell(cell.value, cell.numFmt ?? '');
      while (cells.length < j - 1) cells.push('');
      cells[j - 1] = own;
    });
    while (rows.length < i - 1) rows.push([]);
    rows[i - 1] = cells;
  });
  return { name: sheet.name, rows };
}

/** The sheets of an OOXML workbook that hold anything. */
export async function readWorkbook(source: string, bytes: Uint8Array): Promise<Opened> {
  const workbook = new office.Workbook();
  try {
    await workbook.xlsx.load(bytes.slice().buffer as ArrayBuffer);
  } catch {
    return { refusal: `${source} is damaged: the spreadsheet cannot be read.` };
  }
  const sheets = workbook.worksheets.map(readSheet).filter(({ rows }) => rows.some((row) => row.some(Boolean)));
  if (sheets.length === 0) return { refusal: `${source} holds no cells.` };
  return { incoming: { kind: 'sheets', source, sheets } };
}

export interface SheetColumn {
  name: string;
  kind: ColumnKind;
  /** How its numbers are written. */
  format: NumberFormat;
  cells: readonly string[];
}

/** Columns as a workbook of one sheet: numbers as numbers that show the decimals they were written with, all else as text. */
export async function writeWorkbook(title: string, columns: readonly SheetColumn[]): Promise<ArrayBuffer> {
  const workbook = new office.Workbook();
  const sheet = workbook.addWorksheet(title.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'readings');
  sheet.views = [{ state: 'frozen', ySplit: 1 }];
  columns.forEach(({ name, kind, format, cells }, j) => {
    sheet.getCell(1, j + 1).value = name;
    sheet.getCell(1, j + 1).font = { bold: true };
    cells.forEach((text, i) => {
      if (text === '') return;
      const cell = sheet.getCell(i + 2, j + 1);
      const read = kind === 'label' ? null : readCell(text, format);
      if (read?.kind === 'number') {
        cell.value = read.value;
        cell.numFmt = read.decimals > 0 ? `0.${'0'.repeat(Math.min(15, read.decimals))}` : '0';
      } else cell.value = text;
    });
  });
  return workbook.xlsx.writeBuffer() as Promise<ArrayBuffer>;
}
