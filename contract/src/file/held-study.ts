import { auditStudy, type Audit } from '../chain/audit.js';
import { outlineOf, type ChangeHead, type StudySource } from '../chain/source.js';
import type { ChangeRow } from '../chain/links.js';
import { piecesOf, type Piece } from './pieces.js';

const parsed = <T>(json: string) => JSON.parse(json) as T;

/** A study file in memory as the check of its record reads it. Cells and changes are kept as JSON, which takes a fraction of what they take as values. */
export class HeldStudy implements StudySource {
  study!: StudySource['study'];
  columns: StudySource['columns'] = [];
  setAside: StudySource['setAside'] = [];
  leftIn: StudySource['leftIn'] = [];
  log: StudySource['log'] = [];
  verdicts: StudySource['verdicts'] = [];
  readonly evidence: StudySource['evidence'][number][] = [];
  readonly #changes: (ChangeHead & { json: string })[] = [];
  /** By column, in the order of the file. */
  readonly #blocks: string[][] = [];

  static async of(bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): Promise<HeldStudy> {
    const held = new HeldStudy();
    for await (const piece of piecesOf(bytes)) held.#take(piece);
    held.#changes.sort((a, b) => a.revision - b.revision);
    return held;
  }

  #take(piece: Piece): void {
    switch (piece.of) {
      case 'cells':
        (this.#blocks[piece.column] ??= []).push(JSON.stringify(piece.texts));
        break;
      case 'changes': {
        const { revision, entry, hash } = piece.value;
        this.#changes.push({ revision, entry, hash, json: JSON.stringify(piece.value) });
        break;
      }
      case 'evidence':
        this.evidence.push(outlineOf(piece.value));
        break;
      case 'rest':
        this.study = piece.value.head.study;
        this.columns = piece.value.columns;
        break;
      case 'looks':
        break;
      default:
        (this[piece.of] as unknown[]).push(piece.value);
    }
  }

  get heads(): readonly ChangeHead[] {
    return this.#changes;
  }

  cells(columnId: string): ReturnType<StudySource['cells']> {
    const blocks = this.#blocks[this.columns.findIndex(({ id }) => id === columnId)] ?? [];
    const read = (from: number, count: number) =>
      Promise.resolve(blocks.slice(from, from + count).map((json) => parsed<string[]>(json)));
    return { count: blocks.length, read };
  }

  async *changes(back: boolean): AsyncGenerator<ChangeRow> {
    for (const { json } of back ? this.#changes.toReversed() : this.#changes) yield parsed<ChangeRow>(json);
  }
}

/** Checks a study file against its record. @throws as piecesOf */
export async function auditFile(
  bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
): Promise<{ audit: Audit; study: HeldStudy }> {
  const study = await HeldStudy.of(bytes);
  return { audit: await auditStudy(study), study };
}
