import { ANALYSES, analysisById, inThisThread, UnknownAnalysis } from '@verdict/core/analyses';
import { ImpossibleParameters, UnknownFamily } from '@verdict/core/distributions';
import {
  fingerprintOf,
  NO_READINGS,
  parseBlock,
  recogniseLayout,
  type ParsedBlock,
  type ParsedColumn,
  type Sample,
} from '@verdict/core/readings';
import { drive, methodOf, partsFor, toWire, unusedSetting, type AnyAnalysis } from '@verdict/core/road';
import { sampleInParts, type Table, type TableColumn } from '@verdict/core/table';
import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { ZodError } from 'zod';
import { audit, type Server } from './audit.js';
import { BadInput } from './bad-input.js';

export interface Output {
  out: (text: string) => void;
  error: (text: string) => void;
}

const help = () =>
  [
    'verdict <analysis> [<file.csv>] [--column NAME …] [--split NAME] [--options JSON]',
    'verdict audit <study file> | --all',
    '',
    'Prints { analysis, version, request, result } as JSON, calculated as on the page.',
    'The file may use tabs, commas, semicolons or spaces as separators; its first row holds the column names.',
    '',
    ...ANALYSES.map(({ id, title }) => `  ${id.padEnd(18)} ${title}`),
    '',
    '--split takes a label column and splits the readings by its labels. Several --column options select columns to compare.',
    `--options takes the settings of the analysis, e.g. --options '{"alpha":0.01,"seed":7}'`,
    'audit checks a study file, or every study of the running Verdict, against its record; exit code 1 where one does not agree.',
    '',
  ].join('\n');

async function readBlock(file: string): Promise<ParsedBlock> {
  const text = await readFile(file, 'utf8').catch((error: NodeJS.ErrnoException) => {
    throw new BadInput(
      `${file} cannot be read: ${error.code === 'ENOENT' ? 'the file does not exist' : error.message}.`,
    );
  });
  const block = parseBlock(text, recogniseLayout(text));
  if (block.refusal) throw new BadInput(`${file}: ${block.refusal}`);
  return block;
}

function chooseColumn({ columns }: ParsedBlock, name: string | undefined) {
  const names = columns.map((column) => column.name).join(', ');
  if (name !== undefined) {
    const found = columns.find((column) => column.name === name);
    if (!found) throw new BadInput(`There is no column “${name}”. There are: ${names}.`);
    return found;
  }
  const measures = columns.filter(({ kind }) => kind === 'measure');
  if (measures.length !== 1) throw new BadInput(`State the column with --column. There are: ${names}.`);
  return measures[0]!;
}

function readOptions(json: string | undefined): Record<string, unknown> {
  if (json === undefined) return {};
  try {
    const options: unknown = JSON.parse(json);
    if (typeof options === 'object' && options !== null && !Array.isArray(options))
      return options as Record<string, unknown>;
  } catch {
    // Said below, with an example.
  }
  throw new BadInput(`--options takes a JSON object, e.g. '{"alpha":0.01}'.`);
}

const USAGE =
  'Usage: verdict <analysis> <file.csv> [--column NAME …] [--split NAME] [--options JSON]; --help lists the analyses.';

/** The columns of a file as a table, so that readings are taken in parts as in a study. */
function tableOf({ columns }: ParsedBlock): Table {
  const asColumn = ({ cells: _, ...column }: ParsedColumn, i: number): TableColumn => ({
    ...column,
    ...{ id: String(i), resolution: null, levels: null, frequencies: null, derivation: null },
  });
  return {
    rowCount: Math.max(0, ...columns.map(({ cells }) => cells.length)),
    columns: columns.map(asColumn),
    cells: Object.fromEntries(columns.map(({ cells }, i) => [String(i), cells])),
    setAside: () => new Set(),
  };
}

interface Wanted {
  columns: readonly string[];
  split: string | undefined;
}

/** The readings to work on; none for an analysis that needs no file and got none. */
async function readSample(
  analysis: AnyAnalysis,
  file: string | undefined,
  { columns, split }: Wanted,
): Promise<Sample> {
  if (file === undefined) {
    if (analysis.needsReadings === false) return NO_READINGS;
    throw new BadInput(USAGE);
  }
  if (split !== undefined && columns.length > 1) throw new BadInput('--split takes exactly one --column.');
  const block = await readBlock(file);
  const table = tableOf(block);
  const named = (name: string | undefined) => table.columns[block.columns.indexOf(chooseColumn(block, name))]!;
  const [first, ...others] = columns;
  const by = split !== undefined ? { split: named(split) } : others.length > 0 ? { beside: others.map(named) } : null;
  return sampleInParts(table, named(first), by);
}

/**
 * Refuses a setting that has no effect with the others, unless it has its default value. A kept request contains every setting, hidden ones too, and
 * runs as it is.
 */
function refuseUnused(analysis: AnyAnalysis, request: Record<string, unknown>, options: Record<string, unknown>): void {
  const given = Object.keys(options);
  if (Object.entries(request).every(([name, value]) => value === undefined || given.includes(name))) return;
  const isUsual = (name: string) => {
    const { [name]: own, ...others } = options;
    const read = analysis.request.safeParse({ ...others, ...('column' in request ? { column: request.column } : {}) });
    return read.success && JSON.stringify((read.data as Record<string, unknown>)[name]) === JSON.stringify(own);
  };
  const unused = unusedSetting(
    partsFor(analysis.method, request as never),
    request,
    given.filter((name) => !isUsual(name)),
  );
  if (unused) throw new BadInput(`--options: ${unused.text}`);
}

async function run(args: string[], server: () => Server | null): Promise<{ text: string; sound: boolean }> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      column: { type: 'string', multiple: true },
      split: { type: 'string' },
      options: { type: 'string' },
      all: { type: 'boolean' },
      help: { type: 'boolean', short: 'h' },
    },
  });
  if (values.help) return { text: help(), sound: true };
  if (positionals[0] === 'audit') return audit(positionals.slice(1), values.all === true, server);
  const [id, file, ...more] = positionals;
  if (id === undefined || more.length > 0) throw new BadInput(USAGE);
  const analysis = analysisById(id);
  const { column: columns = [], split } = values;
  const sample = await readSample(analysis, file, { columns, split });
  const parts = split !== undefined ? { split } : columns.length > 1 ? { beside: columns.slice(1) } : {};
  const about = file === undefined ? {} : { column: sample.name, ...parts };
  const options = readOptions(values.options);
  const request = analysis.resolve(analysis.request.parse({ ...options, ...about }), sample);
  refuseUnused(analysis, { ...request }, options);
  const result = toWire(await drive(inThisThread, { id, request, sample }));
  const method = methodOf(analysis, request);
  const fingerprint = fingerprintOf(sample);
  const printed = { analysis: id, version: analysis.version, request, method, fingerprint, result };
  return { text: `${JSON.stringify(printed, null, 2)}\n`, sound: true };
}

function wordsOf(error: unknown): string {
  if (error instanceof ZodError) {
    const [issue] = error.issues;
    return `${issue?.path.join('.') || '--options'}: ${issue?.message ?? 'not understood'}`;
  }
  return error instanceof Error ? error.message : String(error);
}

const MENDABLE = [BadInput, ZodError, UnknownAnalysis, UnknownFamily, ImpossibleParameters];

/** True where the input is at fault, and not the program. */
const isMendable = (problem: unknown) =>
  MENDABLE.some((kind) => problem instanceof kind) ||
  String((problem as { code?: unknown } | null)?.code).startsWith('ERR_PARSE_ARGS');

/** The command line; returns the exit code: 0, 1 where a record does not agree with its study, 2 for input that cannot be worked with, 70 for a fault of our own (sysexits: EX_SOFTWARE). */
export async function main(
  args: string[],
  { out, error }: Output,
  server: () => Server | null = () => null,
): Promise<number> {
  try {
    const { text, sound } = await run(args, server);
    out(text);
    return sound ? 0 : 1;
  } catch (problem) {
    const words = wordsOf(problem).replaceAll('\n', ' ');
    if (isMendable(problem)) {
      error(`${words}\n`);
      return 2;
    }
    error(`This is an error in Verdict, not in the input: ${words}\n`);
    return 70;
  }
}
