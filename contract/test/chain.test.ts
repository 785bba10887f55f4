import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { CellsDigest, digestOfCells, linkAfter, NOTHING_SAID, auditFile, type StudyFile } from '../src/index.js';

/** The canonical form and the hash, written anew from the description in docs/reliability.md. */
function canonical(value: unknown): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  const entries = Object.entries(value).filter(([, of]) => of !== undefined);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, of]) => `${JSON.stringify(key)}:${canonical(of)}`)
    .join(',')}}`;
}
const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

const AT = '2026-12-01T08:00:00.000Z';
const COLUMN = { ...NOTHING_SAID, name: 'thickness', unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' };
const column = (id: string) => ({ ...COLUMN, id, cells: [] as string[], aside: [] });
const NOBODY = { placeColumn: null, placeRow: null, undoes: null, reason: null, who: 'bench 1', at: AT };

/** A study of one column of three cells, the second of which was edited, and its chain. */
function studyFile(): StudyFile {
  const rows = [
    {
      ...{ ...NOBODY, revision: 1, token: 'token-one', kind: 'add-columns', text: 'Added' },
      detail: { kind: 'add-columns', columns: [column('column-a')] },
      inverse: { kind: 'remove-columns', columns: ['column-a'], rowCount: 0, subject: null },
      cells: { 'column-a': digestOfCells(['7.8', '7.9', '8.1']) },
    },
    {
      ...{ ...NOBODY, revision: 2, token: 'token-two', kind: 'edit-cells', text: 'Edited', cells: null },
      detail: { kind: 'edit-cells', runs: [{ column: 'column-a', row: 2, texts: ['8.0'] }] },
      inverse: { kind: 'edit-cells', runs: [{ column: 'column-a', row: 2, texts: ['7.9'] }] },
    },
    {
      ...{ ...NOBODY, revision: 3, token: 'token-three', kind: 'change-column', text: 'Limit', cells: null },
      detail: { kind: 'change-column', column: 'column-a', upperLimit: 8.5 },
      inverse: { kind: 'change-column', column: 'column-a', upperLimit: null },
    },
  ];
  let end = { entries: 0, head: null as string | null };
  const changes = rows.map((row) => {
    const linked = linkAfter(end, row);
    end = { entries: linked.entry, head: linked.hash };
    return linked;
  });
  const { cells: _, aside: __, ...facts } = column('column-a');
  return {
    ...{ format: 'verdict study', version: 2, app: '0.1.0', savedAt: AT, changes, log: [], evidence: [], verdicts: [] },
    ...{ setAside: [], leftIn: [], looks: [] },
    study: {
      ...{ id: 'study-one', name: '', question: '', state: 'open', asks: null, tags: [], alpha: 0.05 },
      ...{ quantileType: 7, subject: 'column-a', revision: 3, rowCount: 3 },
    },
    columns: [{ ...facts, upperLimit: 8.5, position: 0, removed: false, cells: ['7.8', '8.0', '8.1'] }],
  } as unknown as StudyFile;
}
const audited = async (file: StudyFile) => (await auditFile([Buffer.from(JSON.stringify(file))])).audit;
const faultsOf = async (alter: (file: StudyFile) => void) => {
  const file = studyFile();
  alter(file);
  return (await audited(file)).faults.map(({ text }) => text);
};

describe('the chain of a study', () => {
  it('is SHA-256 of the hash before, a line feed and the entry in canonical JSON', () => {
    const { changes } = studyFile();
    let before = '';
    for (const { hash, ...content } of changes) {
      expect(hash).toBe(sha256(`${before}\n${canonical(content)}`));
      before = hash!;
    }
  });

  it('digests cells as JSON strings with a line feed each, without the empty ones at the end', () => {
    const cells = ['7.8', '', '"8"\n', '', ''];
    expect(digestOfCells(cells)).toBe(
      sha256(
        cells
          .slice(0, 3)
          .map((text) => `${JSON.stringify(text)}\n`)
          .join(''),
      ),
    );
    const digest = new CellsDigest();
    for (const text of cells.slice(0, 3)) digest.add(text);
    expect(digest.end()).toBe(digestOfCells(cells));
  });

  it('that was not altered is verified, with its head', async () => {
    const file = studyFile();
    expect(await audited(file)).toEqual({ entries: 3, head: file.changes[2]!.hash, earlier: 0, faults: [] });
  });

  it.each<[string, (file: StudyFile) => void, string]>([
    ['an altered reason', (file) => (file.changes[1]!.reason = 'another'), 'entry 2 (change 2) was altered.'],
    ['another author', (file) => (file.changes[0]!.who = 'somebody'), 'entry 1 (change 1) was altered.'],
    ['a moment moved', (file) => (file.changes[2]!.at = '2026-12-01T08:00:00.001Z'), 'entry 3 (change 3) was altered.'],
    ['an entry left out', (file) => file.changes.splice(1, 1), 'entry 2 is missing.'],
    ['the end cut off', (file) => file.changes.pop(), 'the record ends with change 2, the study is at change 3.'],
    ['an edited cell', (file) => (file.columns[0]!.cells[1] = '8.2'), 'row 2 of thickness is not as recorded.'],
    ['a cell nobody edited', (file) => (file.columns[0]!.cells[0] = '7.7'), 'cells of thickness are not as recorded.'],
    ['a limit', (file) => (file.columns[0]!.upperLimit = 9), 'column thickness: upperLimit is not as recorded.'],
    ['a unit', (file) => (file.columns[0]!.unit = 'cm'), 'column thickness: unit is not as recorded.'],
    ['a row cut off', (file) => (file.study.rowCount = 2), 'the number of rows is not as recorded.'],
    [
      'a reading set aside',
      (file) => file.setAside.push({ columnId: 'column-a', row: 1, reason: 'slip', who: 'x', at: AT }),
      'readings are marked, but no change marked them.',
    ],
    [
      'a column nobody added',
      (file) => file.columns.push({ ...file.columns[0]!, id: 'column-b', name: 'width' }),
      'no change added the column width.',
    ],
    [
      'a change outside of the chain',
      (file) => {
        file.changes.push({ ...file.changes[2]!, revision: 4, token: 'token-four', entry: null, hash: null });
        file.study.revision = 4;
      },
      'changes were added or left out outside of the chain.',
    ],
  ])('shows %s', async (_, alter, fault) => {
    expect(await faultsOf(alter)).toContain(fault);
  });

  it('names an altered entry once, and none of those after it', async () => {
    expect(await faultsOf((file) => (file.changes[0]!.text = 'another'))).toEqual(['entry 1 (change 1) was altered.']);
  });

  it('without any entry says that nothing of it is vouched for', async () => {
    const file = studyFile();
    file.changes = file.changes.map((change) => ({ ...change, entry: null, hash: null, cells: null }));
    expect(await audited(file)).toEqual({ entries: 0, head: null, earlier: 3, faults: [] });
    file.changes.splice(1, 1);
    expect((await audited(file)).faults[0]!.text).toBe('change 2 is missing from the record.');
  });
});
