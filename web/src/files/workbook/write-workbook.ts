import { readCell, type ColumnKind, type NumberFormat } from '@verdict/core/readings';
import writeExcelFile, { type SheetData } from 'write-excel-file/universal';

export interface SheetColumn {
  name: string;
  kind: ColumnKind;
  /** How its numbers are written. */
  format: NumberFormat;
  cells: readonly string[];
}

/** What the format would read as the code of a character stays the text it is (ISO/IEC 29500-1, 22.9.2.19). */
const escaped = (text: string) => text.replace(/_(?=x[0-9A-Fa-f]{4}_)/g, '_x005F_');

/** A number as a number that shows the decimals it was written with, all else as text. */
function cellOf(text: string, { kind, format }: SheetColumn) {
  if (text === '') return null;
  const read = kind === 'label' ? null : readCell(text, format);
  if (read?.kind !== 'number') return { value: escaped(text), type: String };
  const shown = read.decimals > 0 ? `0.${'0'.repeat(Math.min(15, read.decimals))}` : '0';
  return { value: read.value, type: Number, format: shown };
}

/** Columns as a workbook of one sheet. */
export async function writeWorkbook(title: string, columns: readonly SheetColumn[]): Promise<Blob> {
  const names = columns.map(({ name }) => ({ value: name, type: String, fontWeight: 'bold' as const }));
  const count = columns[0]?.cells.length ?? 0;
  const rows = Array.from({ length: count }, (_, i) => columns.map((column) => cellOf(column.cells[i] ?? '', column)));
  const sheet = title.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'readings';
  return writeExcelFile([names, ...rows] as SheetData, { sheet, stickyRowsCount: 1 }).toBlob();
}
