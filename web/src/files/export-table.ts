import type { StudyColumn } from '@verdict/contract';
import { defused, descriptorOf, PLAIN_FORMAT, toDelimited } from '@verdict/core/readings';
import { derivationWords } from '@verdict/core/table';
import { strToU8, zipSync } from 'fflate';

export type ExportFormat = 'csv' | 'tsv' | 'xlsx' | 'json' | 'package';

export const FORMATS: Record<ExportFormat, { title: string; ending: string; type: string }> = {
  csv: { title: 'CSV', ending: 'csv', type: 'text/csv;charset=utf-8' },
  tsv: { title: 'TSV', ending: 'tsv', type: 'text/tab-separated-values;charset=utf-8' },
  xlsx: {
    title: 'a spreadsheet',
    ending: 'xlsx',
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
  json: { title: 'JSON', ending: 'json', type: 'application/json' },
  package: { title: 'a data package', ending: 'zip', type: 'application/zip' },
};

/** What goes out: columns and stored rows, and what becomes of readings that are set aside. */
export interface Export {
  columns: readonly StudyColumn[];
  texts: (columnId: string) => readonly string[];
  rows: readonly number[];
  /** "column/row" → reason. */
  aside: ReadonlyMap<string, string>;
  withAside: boolean;
}

/** The column that says which readings of a row are set aside, and why. */
const ASIDE = 'set aside';

/** The cells that go out, column by column; with the set-aside readings goes a column that names them. */
export function exportColumns({
  columns,
  texts,
  rows,
  aside,
  withAside,
}: Export): { name: string; cells: string[]; of: StudyColumn | null }[] {
  const result: { name: string; cells: string[]; of: StudyColumn | null }[] = columns.map((column) => {
    const own = texts(column.id);
    const cells = rows.map((row) => (!withAside && aside.has(`${column.id}/${row}`) ? '' : (own[row - 1] ?? '')));
    const name = column.unit ? `${column.name} (${column.unit})` : column.name;
    return { name, cells, of: column };
  });
  const said = rows.map((row) =>
    columns
      .flatMap(({ id, name }) => {
        const reason = aside.get(`${id}/${row}`);
        return reason === undefined ? [] : [`${name}: ${reason}`];
      })
      .join('; '),
  );
  if (withAside && said.some(Boolean)) result.push({ name: ASIDE, cells: said, of: null });
  return result;
}

function* rowsOf(columns: readonly { name: string; cells: string[] }[]): Generator<string[]> {
  yield columns.map(({ name }) => name);
  const count = columns[0]?.cells.length ?? 0;
  for (let i = 0; i < count; i++) yield columns.map(({ cells }) => cells[i]!);
}

const JSON_NUMBER = /^-?(0|[1-9]\d*)(\.\d+)?([eE][+-]?\d+)?$/;

/** One object a row; numbers with the digits they were written with. */
function toJson(columns: readonly { name: string; cells: string[]; of: StudyColumn | null }[]): string {
  const count = columns[0]?.cells.length ?? 0;
  const value = (text: string, of: StudyColumn | null) => {
    if (text === '') return 'null';
    return of && of.kind !== 'label' && JSON_NUMBER.test(text) ? text : JSON.stringify(defused(text));
  };
  const lines = Array.from({ length: count }, (_, i) => {
    const pairs = columns.map(({ name, cells, of }) => `${JSON.stringify(name)}: ${value(cells[i]!, of)}`);
    return `  { ${pairs.join(', ')} }`;
  });
  return `[\n${lines.join(',\n')}\n]\n`;
}

function toPackage(title: string, columns: ReturnType<typeof exportColumns>, all: readonly StudyColumn[]): Uint8Array {
  // In a package units and limits have a place of their own: the names stay bare.
  const bare = columns.map((column) => ({ ...column, name: column.of?.name ?? column.name }));
  const nothing = {
    unit: '',
    decimal: 'point',
    resolution: null,
    lowerLimit: null,
    target: null,
    upperLimit: null,
  } as const;
  const described = bare.map(({ name, of }) => ({
    ...(of ?? { ...nothing, kind: 'label' as const }),
    name,
    about: of?.derivation ? derivationWords(of.derivation, all) : null,
  }));
  const files = {
    'datapackage.json': strToU8(descriptorOf(title, 'readings.csv', described)),
    'readings.csv': strToU8(toDelimited(rowsOf(bare), ',')),
  };
  return zipSync(files);
}

/** The file's content in the wanted format. */
export async function exported(format: ExportFormat, title: string, wanted: Export): Promise<BlobPart> {
  const columns = exportColumns(wanted);
  switch (format) {
    case 'csv':
      return toDelimited(rowsOf(columns), ',');
    case 'tsv':
      return toDelimited(rowsOf(columns), '\t');
    case 'json':
      return toJson(columns);
    case 'package':
      return toPackage(title, columns, wanted.columns) as Uint8Array<ArrayBuffer>;
    case 'xlsx': {
      const { makeWorkbook } = await import('./workbook/in-worker.js');
      const sheet = columns.map(({ name, cells, of }) => ({
        ...{ name, kind: of?.kind ?? ('label' as const), cells: cells.map(defused) },
        format: of && !of.derivation ? of : PLAIN_FORMAT,
      }));
      return makeWorkbook(title, sheet);
    }
  }
}
