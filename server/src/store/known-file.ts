/** What must be known of a study file before any of it is stored: all but its cells, results and changes. */
import {
  changeSchema,
  fromOlder,
  objectionToFile,
  outlineOf,
  OUTSIDE_READINGS,
  reopenRequestSchema,
  ruleRequestSchema,
  type EvidenceOutline,
  type FileColumn,
  type FileHead,
  type FileOutline,
  type Piece,
  type StudyFile,
} from '@verdict/contract';
import { StoreError } from './errors.js';
import { wordsOf } from './evidence.js';

type ChangeRow = StudyFile['changes'][number];
type EvidenceRow = StudyFile['evidence'][number];
interface Words {
  method: string;
  finding: { text: string; strong?: boolean; code?: string }[];
}

/** A valid study file without its long parts. */
export interface KnownFile extends Pick<StudyFile, 'setAside' | 'leftIn' | 'log' | 'verdicts' | 'looks'> {
  head: FileHead;
  columns: (FileColumn & { reach: number })[];
  changes: Pick<ChangeRow, 'revision' | 'token' | 'undoes' | 'entry' | 'hash' | 'who'>[];
  evidence: (EvidenceOutline & Pick<EvidenceRow, 'columnId' | 'parts'>)[];
  /** How this version puts each piece of evidence, by its id. */
  words: Map<string, Words>;
}

const damaged = (what: string, field: string) =>
  new StoreError('invalid', `The study file is damaged: its record ${what}.`, { field });

/** Refuses an entry of a record that this version cannot read. */
function refuseUnreadable({ kind, detail, inverse, revision }: ChangeRow): void {
  const field = `changes.${revision}`;
  if (OUTSIDE_READINGS.has(kind)) {
    const schema = { rule: ruleRequestSchema.loose(), reopen: reopenRequestSchema }[kind];
    if (inverse !== null || (schema && !schema.safeParse(detail).success))
      throw damaged('holds an invalid verdict', field);
    return;
  }
  const [read, back] = [detail, inverse].map((said) => changeSchema.safeParse(fromOlder(said)));
  if (!read!.success || !back!.success) throw damaged('holds an invalid entry', field);
  if (read!.data.kind !== kind) throw damaged('does not state what was done', field);
}

/** The words of a piece of evidence are written from its own request and result, whatever the file says. */
function storedWords(piece: EvidenceRow): Words {
  const { method, finding: pieces } = wordsOf(piece);
  const finding = pieces.map(({ text, strong, code }) => ({
    ...{ text, ...(strong ? { strong } : {}) },
    ...(code === undefined ? {} : { code }),
  }));
  return { method, finding };
}

/** Reads a file to its end, and refuses one that no sequence of changes could have led to. */
export async function knownFile(pieces: AsyncIterable<Piece>): Promise<KnownFile> {
  const known: Omit<KnownFile, 'head' | 'columns'> = {
    ...{ setAside: [], leftIn: [], changes: [], log: [], evidence: [], verdicts: [], looks: [], words: new Map() },
  };
  const reach: number[] = [];
  let rest: (Piece & { of: 'rest' })['value'] | null = null;
  for await (const piece of pieces) {
    if (piece.of === 'cells') reach[piece.column] = (reach[piece.column] ?? 0) + piece.texts.length;
    else if (piece.of === 'rest') rest = piece.value;
    else if (piece.of === 'changes') {
      refuseUnreadable(piece.value);
      const { revision, token, undoes, entry, hash, who } = piece.value;
      known.changes.push({ revision, token, undoes, entry, hash, who });
    } else if (piece.of === 'evidence') {
      const { id, columnId, parts } = piece.value;
      known.words.set(id, storedWords(piece.value));
      known.evidence.push({ ...outlineOf(piece.value), columnId, parts });
    } else (known[piece.of] as unknown[]).push(piece.value);
  }
  const { head, columns } = rest!;
  const file = { ...known, head, columns: columns.map((column, i) => ({ ...column, reach: reach[i] ?? 0 })) };
  const outline: FileOutline = { ...file, study: head.study };
  const objection = objectionToFile(outline);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
  return file;
}
