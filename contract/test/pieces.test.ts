import { describe, expect, it } from 'vitest';
import { BLOCK, NOTHING_SAID, piecesOf, type Piece } from '../src/index.js';

const AT = '2026-12-01T08:00:00.000Z';
const FACTS = { ...NOTHING_SAID, name: 'thickness', unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' };
const column = (id: string, cells: string[]) => ({
  ...FACTS,
  id,
  derivation: null,
  position: 0,
  removed: false,
  cells,
});
const mark = (row: number) => ({ columnId: 'column-a', row, reason: 'slip "on" \\ 7.8 µm', who: 'bench 1', at: AT });
const cells = (count: number) => Array.from({ length: count }, (_, i) => `${i} µ\n"`);
const FILE = {
  ...{ format: 'verdict study', version: 2, app: '0.1.0', savedAt: AT },
  study: {
    ...{ id: 'study-one', name: '', question: '', state: 'open', asks: null, tags: [], alpha: 0.05 },
    ...{ quantileType: 7, subject: null, revision: 0, rowCount: 2_500 },
  },
  columns: [column('column-a', cells(2_500)), column('column-b', []), column('column-c', ['x'])],
  ...{ setAside: [mark(1), mark(2)], leftIn: [], changes: [], log: [], evidence: [], verdicts: [], looks: [] },
};

async function piecesOfText(text: string, at = 1 << 20): Promise<Piece[]> {
  const bytes = Buffer.from(text);
  const chunks = Array.from({ length: Math.ceil(bytes.length / at) }, (_, i) => bytes.subarray(i * at, (i + 1) * at));
  const pieces: Piece[] = [];
  for await (const piece of piecesOf(chunks)) pieces.push(piece);
  return pieces;
}
const sorted = (value: unknown): unknown => {
  if (value === null || typeof value !== 'object') return value;
  if (Array.isArray(value)) return value.map(sorted);
  return Object.fromEntries(
    Object.entries(value)
      .sort()
      .map(([key, of]) => [key, sorted(of)]),
  );
};

describe('a study file read a piece at a time', () => {
  it.each([
    ['as it is written', JSON.stringify(FILE)],
    ['with its names in another order', JSON.stringify(sorted(FILE))],
    ['laid out in lines, behind a byte order mark', `\uFEFF${JSON.stringify(FILE, null, 2)}\n`],
  ])('has the same pieces %s', async (_, text) => {
    const pieces = await piecesOfText(text);
    const found = (column: number) =>
      pieces.flatMap((piece) => (piece.of === 'cells' && piece.column === column ? [piece.texts] : []));
    expect(found(0).map(({ length }) => length)).toEqual([BLOCK, BLOCK, 500]);
    expect(found(0).flat()).toEqual(FILE.columns[0]!.cells);
    expect([found(1), found(2)]).toEqual([[], [['x']]]);
    expect(pieces.filter(({ of }) => of === 'setAside')).toEqual(
      FILE.setAside.map((value) => ({ of: 'setAside', value })),
    );
    const last = pieces.at(-1)!;
    expect(last.of === 'rest' && last.value.head.study).toEqual(FILE.study);
    expect(last.of === 'rest' && last.value.columns.map(({ id }) => id)).toEqual(['column-a', 'column-b', 'column-c']);
  });

  it('has the same pieces wherever its bytes are cut', async () => {
    const small = JSON.stringify({ ...FILE, columns: [column('column-a', cells(30))] });
    const whole = await piecesOfText(small);
    for (const at of [1, 2, 3, 7, 64, 1000]) expect(await piecesOfText(small, at)).toEqual(whole);
  });

  const altered = (facts: object) => JSON.stringify({ ...FILE, ...facts });
  it.each<[string, string, RegExp]>([
    ['no JSON', '{"format": verdict}', /./],
    ['JSON that breaks off', JSON.stringify(FILE).slice(0, -40), /incomplete/],
    ['something behind its end', `${JSON.stringify(FILE)} {}`, /./],
    ['nesting without end', `{"format":${'['.repeat(100)}`, /nested more than/],
    ['another format', altered({ format: 'else' }), /not a study file/],
    ['a list', '[1]', /not a study file/],
    ['nothing', '{}', /not a study file/],
    ['a name that no study file has', altered({ more: 1 }), /more/],
    ['a list that is missing', altered({ changes: undefined }), /changes/],
    ['a list that is none', altered({ changes: { a: 1 } }), /changes/],
    ['a list of another kind', altered({ verdicts: 7 }), /verdicts/],
    ['a cell that is no text', altered({ columns: [{ ...FILE.columns[0]!, cells: ['1', 2] }] }), /cells/],
    ['cells that are no list', altered({ columns: [{ ...FILE.columns[0]!, cells: { a: '1' } }] }), /columns/],
    ['a cell that is too long', altered({ columns: [column('column-a', ['x'.repeat(1001)])] }), /1000/],
    ['a column that says too much', altered({ columns: [{ ...FILE.columns[0]!, more: 1 }] }), /more/],
    ['a mark without a reason', altered({ setAside: [{ ...mark(1), reason: undefined }] }), /reason/],
  ])('is refused where it is %s', async (_, text, said) => {
    await expect(piecesOfText(text)).rejects.toThrow(said);
  });
});
