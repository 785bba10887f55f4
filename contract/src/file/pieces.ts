/** Reads a study file a piece at a time, so that a file of any length takes little memory. */
import { JSONParser, TokenizerError, TokenParserError } from '@streamparser/json';
import { z } from 'zod';
import { BLOCK } from '../chain/source.js';
import { DEEPEST, Nesting } from '../nesting.js';
import {
  cellTextsSchema,
  fileHeadSchema,
  fileRestSchema,
  LISTED,
  type FileColumn,
  type FileHead,
  type ListName,
  type StudyFile,
} from './study-file.js';

/** Lists with many pieces, of which one is held at a time. */
const LISTS = ['setAside', 'leftIn', 'changes', 'log', 'evidence', 'verdicts', 'looks'] as const satisfies ListName[];
export type List = (typeof LISTS)[number];

export type Piece =
  | { [K in List]: { of: K; value: StudyFile[K][number] } }[List]
  /** Cells of a column, named by its place among the columns of the file, one after the other; each time BLOCK of them, the last time what is left. */
  | { of: 'cells'; column: number; texts: string[] }
  /** At the end: everything that is not a list, and the columns without their cells. */
  | { of: 'rest'; value: { head: FileHead; columns: FileColumn[] } };

/** Bytes between two pieces: no change, result or cell is longer. */
const LONGEST_PIECE = 256 * 1024 * 1024;

/** Cells stand in the list of a column, which stands in the list of columns of the file. */
const CELL_DEPTH = 4;

/** As a schema says it, with the place in the file. */
function checked<T>(schema: z.ZodType<T>, value: unknown, place: PropertyKey[]): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  throw new z.ZodError(read.error.issues.map((issue) => ({ ...issue, path: [...place, ...issue.path] })));
}

const noList = (name: PropertyKey) =>
  new z.ZodError([{ code: 'custom', path: [name], message: 'A list is expected here.', input: undefined }]);

/** Gathers the values of the parser into pieces. */
class Gathering {
  ready: Piece[] = [];
  root: object = {};
  #cells: { column: number; texts: unknown[]; from: number } | null = null;

  take(root: object, [list, index]: PropertyKey[], value: unknown): void {
    this.root = root;
    // Said first, and refused first: what follows may have any form.
    if (list === 'format' || list === 'version')
      return void checked<unknown>(fileHeadSchema.shape[list], value, [list]);
    if (typeof index !== 'number') throw noList(list!);
    const name = list as List;
    this.ready.push({ of: name, value: checked(LISTED[name] as z.ZodType, value, [name, index]) } as Piece);
  }

  takeCell(column: PropertyKey | undefined, from: PropertyKey | undefined, text: unknown): void {
    if (typeof column !== 'number' || typeof from !== 'number') throw noList('columns');
    if (this.#cells?.column !== column || this.#cells.texts.length === BLOCK) {
      this.flush();
      this.#cells = { column, from, texts: [] };
    }
    this.#cells.texts.push(text);
  }

  flush(): void {
    if (!this.#cells) return;
    const { column, texts, from } = this.#cells;
    this.#cells = null;
    this.ready.push({
      of: 'cells',
      column,
      texts: checked(cellTextsSchema, texts, ['columns', column, 'cells', from]),
    });
  }

  rest(): Piece {
    const { columns, ...head } = checked(fileRestSchema, this.root, []);
    return { of: 'rest', value: { head, columns: columns.map(({ cells: _, ...column }) => column) } };
  }
}

/**
 * The pieces of a study file in the order in which they stand there, each checked by its schema.
 * @throws SyntaxError where the bytes are no JSON, or nest too deep
 * @throws ZodError where a piece has another form
 */
export async function* piecesOf(bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): AsyncGenerator<Piece> {
  const gathering = new Gathering();
  const nesting = new Nesting();
  const paths = ['$.format', '$.version', '$.columns.*.cells.*', ...LISTS.map((list) => `$.${list}.*`)];
  const parser = new JSONParser({ paths, keepStack: true, stringBufferSize: 64 * 1024 });
  parser.onValue = ({ value, key, parent, stack }) => {
    const root = stack[1]?.value ?? parent;
    if (stack.length === CELL_DEPTH) gathering.takeCell(stack[2]!.key, key, value);
    else gathering.take(root as unknown as object, [...stack.slice(1).map((above) => above.key!), key!], value);
    // Told of, and let go: the parser goes by its own count.
    if (Array.isArray(parent)) parent.length = 0;
  };
  let waiting = 0;
  for await (const some of bytes) {
    nesting.add(some);
    if (nesting.deepest > DEEPEST) throw new SyntaxError(`The JSON is nested more than ${DEEPEST} levels deep.`);
    written(parser, some);
    waiting = gathering.ready.length > 0 ? 0 : waiting + some.length;
    if (waiting > LONGEST_PIECE) throw new SyntaxError('A part of the file is too long.');
    yield* gathering.ready.splice(0);
  }
  if (!parser.isEnded) throw new SyntaxError('The JSON is incomplete.');
  gathering.flush();
  yield* gathering.ready;
  yield gathering.rest();
}

function written(parser: JSONParser, some: Uint8Array): void {
  try {
    parser.write(some);
  } catch (error) {
    if (!(error instanceof TokenizerError || error instanceof TokenParserError)) throw error;
    throw new SyntaxError(error.message, { cause: error });
  }
}
