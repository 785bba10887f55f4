import {
  NOTHING_SAID,
  type Announced,
  type Change,
  type Problem,
  type Study,
  type StudyCells,
} from '@verdict/contract';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
/** The page's end of the stream of changes: what a test tells is heard at once. */
let tell: (event: 'change' | 'standing', data: Partial<Announced>) => void = () => undefined;
vi.mock('../src/api/shared-feed.js', () => ({
  followChannel: (_: string, hear: typeof tell) => {
    tell = hear;
    return () => (tell = () => undefined);
  },
}));
const { useStudy } = await import('../src/stores/study.js');

const A = 'column-a';
const column = { unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none', ...NOTHING_SAID } as const;

/** A server of one study that keeps revisions and tokens, and can be away, stale or strict. */
class FakeServer {
  revision = 1;
  name = '';
  cells: StudyCells = { [A]: ['8.01', '8.02', 'x'] };
  /** What came in between, told with a refusal. */
  between: Announced[] | undefined = undefined;
  tokens = new Map<string, number>();
  /** What a step does, where it is sent along. */
  undoing: Change | null = null;
  asked: string[] = [];
  sent: Change[] = [];
  mode: 'well' | 'away' | 'losing-answers' | 'refusing' = 'well';

  get study(): Study {
    return {
      ...{
        id: 'study-0001',
        name: this.name,
        question: '',
        state: 'open',
        alpha: 0.05,
        asks: null,
        tags: [],
        quantileType: 7,
        subject: A,
        revision: this.revision,
      },
      ...{ rowCount: 3, columns: [{ ...column, id: A, name: 'thickness' }], setAside: [], leftIn: [], verdicts: [] },
      ...{ canUndo: null, canRedo: null, entries: 0, head: null, notVerified: null },
    };
  }

  answer(path: string, body: { token: string; revision: number; change: Change } | null): Response {
    const problem = (status: number, code: string, detail: string) =>
      Response.json(
        { type: 'about:blank', title: 't', status, code, detail, between: this.between } satisfies Problem,
        { status },
      );
    if (this.mode === 'away') return problem(503, 'database-gone', 'The database cannot be reached.');
    this.asked.push(path.replace(/.*\//, ''));
    if (path.endsWith('/cells')) return Response.json({ revision: this.revision, cells: structuredClone(this.cells) });
    if (/\/(?:evidence|jobs)$/.test(path)) return Response.json([]);
    if (!body) return Response.json(this.study);
    if (path.endsWith('/steps')) {
      this.revision++;
      this.cells[A]![0] = '8.01';
      return Response.json({ revision: this.revision, text: 'undone', change: this.undoing });
    }
    const known = this.tokens.get(body.token);
    if (known !== undefined) return Response.json({ revision: known, text: 'again' });
    if (this.mode === 'refusing') return problem(422, 'invalid', 'There is already a column “a”.');
    if (body.revision !== this.revision) return problem(409, 'stale', 'This study has moved on.');
    this.revision++;
    this.sent.push(body.change);
    this.tokens.set(body.token, this.revision);
    if (body.change.kind === 'edit-cells')
      for (const { row, texts } of body.change.runs) texts.forEach((text, i) => (this.cells[A]![row - 1 + i] = text));
    if (this.mode === 'losing-answers') {
      this.mode = 'well';
      throw new TypeError('connection lost');
    }
    return Response.json({ revision: this.revision, text: 'done' });
  }
}

let server: FakeServer;
const edit = (row: number, text: string): Change => ({ kind: 'edit-cells', runs: [{ column: A, row, texts: [text] }] });

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
  setActivePinia(createPinia());
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) =>
    server.answer(String(url), init?.body ? JSON.parse(String(init.body)) : null),
  );
});
afterEach(() => vi.useRealTimers());

async function opened() {
  const store = useStudy();
  await store.open('study-0001');
  return store;
}
const settle = () => vi.advanceTimersByTimeAsync(5_000);

describe('the open study', () => {
  it('shows a change at once and sends it after, in order, each on the revision of the one before', async () => {
    const store = await opened();
    store.change(edit(1, '9.01'));
    store.change(edit(2, '9.02'));
    expect(store.cells[A]).toEqual(['9.01', '9.02', 'x']);
    expect(store.waiting).toHaveLength(2);
    await settle();
    expect(store.waiting).toEqual([]);
    expect(server.sent).toEqual([edit(1, '9.01'), edit(2, '9.02')]);
    expect(store.study).toMatchObject({ revision: 3, canUndo: 'done' });
  });

  it('keeps changes while the database is away, says so, and sends them when it is back', async () => {
    const store = await opened();
    server.mode = 'away';
    store.change(edit(1, '9.01'));
    store.change(edit(2, '9.02'));
    await settle();
    expect(store.away).toBe('The database cannot be reached.');
    expect(store.waiting).toHaveLength(2);
    expect(store.cells[A]).toEqual(['9.01', '9.02', 'x']);
    server.mode = 'well';
    await settle();
    expect(store.away).toBeNull();
    expect(server.cells[A]).toEqual(['9.01', '9.02', 'x']);
  });

  it('sends a change whose answer was lost again under the same token: it is done once', async () => {
    const store = await opened();
    server.mode = 'losing-answers';
    store.change(edit(1, '9.01'));
    await settle();
    expect(server.sent).toHaveLength(1);
    expect(store.waiting).toEqual([]);
    expect(store.study!.revision).toBe(2);
  });

  it('stops at another’s change, and takes the newer state over with its own on top', async () => {
    const store = await opened();
    server.revision = 2;
    server.cells[A] = ['7.00', '8.02', 'x'];
    store.change(edit(2, '9.02'));
    await settle();
    expect(store.conflict).toMatchObject({ code: 'stale' });
    expect(server.sent).toEqual([]);
    await store.takeOver(true);
    await settle();
    expect(store.conflict).toBeNull();
    expect(server.cells[A]).toEqual(['7.00', '9.02', 'x']);
    expect(store.cells[A]).toEqual(['7.00', '9.02', 'x']);
  });

  const told = (revision: number, row: number, text: string): Announced => ({
    ...{ revision, token: `other-${revision}`, who: 'bench 2', text: 'edited', change: edit(row, text) },
  });

  it('follows another’s change to another cell without asking: theirs, then mine', async () => {
    const store = await opened();
    server.revision = 2;
    server.cells[A] = ['7.00', '8.02', 'x'];
    server.between = [told(2, 1, '7.00')];
    store.change(edit(2, '9.02'));
    await settle();
    expect(store.conflict).toBeNull();
    expect(store.cells[A]).toEqual(['7.00', '9.02', 'x']);
    expect(server.cells[A]).toEqual(['7.00', '9.02', 'x']);
  });

  it('asks where another wrote into the same cell', async () => {
    const store = await opened();
    server.revision = 2;
    server.between = [told(2, 2, '7.00')];
    store.change(edit(2, '9.02'));
    await settle();
    expect(store.conflict).toMatchObject({ code: 'stale' });
    expect(server.sent).toEqual([]);
  });

  it('stays in step with another window, by the change itself or by reading again', async () => {
    const store = await opened();
    tell('change', told(2, 1, '7.00'));
    expect(store.cells[A]).toEqual(['7.00', '8.02', 'x']);
    expect(store.study!.revision).toBe(2);
    // One was missed: the next one is not put on top of what is not known.
    server.revision = 4;
    server.cells[A] = ['7.00', '7.50', '7.75'];
    tell('change', told(4, 3, '7.75'));
    await settle();
    expect(store.cells[A]).toEqual(['7.00', '7.50', '7.75']);
    server.revision = 5;
    server.cells[A] = ['6', '6', '6'];
    tell('standing', { revision: 5 });
    await settle();
    expect(store.cells[A]).toEqual(['6', '6', '6']);
  });

  it('goes on after what waited was put on top of another’s change', async () => {
    const store = await opened();
    server.mode = 'away';
    store.change({ kind: 'change-column', column: A, columnKind: 'label' });
    store.change({
      kind: 'change-column',
      column: A,
      levels: { order: ['8.02'], merged: [{ from: 'x', into: '8.01' }] },
    });
    await settle();
    // The server is back, and somebody has renamed the study meanwhile: mine follow.
    server.mode = 'well';
    server.revision = 2;
    server.between = [
      { revision: 2, token: 't', who: 'b', text: 'named', change: { kind: 'change-study', name: 'tiles' } },
    ];
    await settle();
    expect(store.waiting).toEqual([]);
    expect(store.study!.columns[0]!.levels).toEqual({ order: ['8.02'], merged: [{ from: 'x', into: '8.01' }] });
    store.change(edit(1, '9.01'));
    expect(store.cells[A]![0]).toBe('9.01');
    await settle();
    expect(server.sent.at(-1)).toEqual(edit(1, '9.01'));
  });

  it('takes a step back without reading every cell again, unless the step is too large to be sent along', async () => {
    const store = await opened();
    store.change(edit(1, '9.01'));
    await settle();
    server.asked = [];
    server.undoing = edit(1, '8.01');
    await store.undo();
    expect(store.cells[A]).toEqual(['8.01', '8.02', 'x']);
    expect(store.study!.revision).toBe(3);
    expect(server.asked).toEqual(['steps', 'study-0001']);
    // Told over the stream before the answer is there: done once.
    server.asked = [];
    const undone = store.undo();
    tell('change', told(4, 1, '8.01'));
    await undone;
    expect([store.study!.revision, server.asked.includes('cells')]).toEqual([4, false]);
    server.undoing = null;
    server.asked = [];
    await store.undo();
    expect(store.study!.revision).toBe(5);
    expect(server.asked).toContain('cells');
  });

  it('does not take its own change for another’s', async () => {
    const store = await opened();
    store.change(edit(1, '9.01'));
    tell('change', { ...told(2, 1, '9.01'), token: store.waiting[0]!.token });
    await settle();
    expect(store.study!.revision).toBe(2);
    expect(store.cells[A]).toEqual(['9.01', '8.02', 'x']);
  });

  it('refuses what the server would refuse before it is shown', async () => {
    const store = await opened();
    store.change({ kind: 'change-column', column: A, claimedSd: -1 });
    expect(store.refused).toMatchObject({ detail: 'The claimed standard deviation must be a number above 0.' });
    expect(store.waiting).toEqual([]);
  });

  it('drops its own changes when asked to, and only then', async () => {
    const store = await opened();
    server.revision = 2;
    store.change(edit(2, '9.02'));
    await settle();
    await store.takeOver(false);
    expect(store.waiting).toEqual([]);
    expect(store.cells[A]).toEqual(['8.01', '8.02', 'x']);
  });

  it('takes a refused change out, says why, and shows what the study really is', async () => {
    const store = await opened();
    server.mode = 'refusing';
    store.change({ kind: 'change-column', column: A, name: 'other' });
    expect(store.study!.columns[0]!.name).toBe('other');
    await settle();
    expect(store.refused).toMatchObject({ detail: 'There is already a column “a”.' });
    expect(store.study!.columns[0]!.name).toBe('thickness');
    expect(store.waiting).toEqual([]);
  });

  it('does not undo or rule before everything is stored', async () => {
    const store = await opened();
    server.mode = 'away';
    store.change(edit(1, '9.01'));
    expect(await store.settled(() => Promise.reject(new Error('must not be called')))).toBe(false);
    expect(store.refused).toMatchObject({ code: 'waiting' });
  });

  it('undoes right after an edit, once that is stored', async () => {
    const store = await opened();
    store.change(edit(1, '9.01'));
    const seen: number[] = [];
    const done = store.settled(async ({ revision }) => seen.push(revision));
    await settle();
    expect(await done).toBe(true);
    expect(seen).toEqual([2]);
  });

  it('works a sample out again only when its cells, settings or set-aside readings change', async () => {
    const store = await opened();
    const before = store.sampleOf(A);
    expect([...before!.values]).toEqual([8.01, 8.02]);
    expect(before).toMatchObject({ unreadable: 1, missing: 0 });
    store.change({ kind: 'change-study', name: 'named' });
    expect(store.sampleOf(A)).toBe(before);
    store.change({ kind: 'set-aside', readings: [{ column: A, row: 1, reason: 'r' }] });
    expect([...store.sampleOf(A)!.values]).toEqual([8.02]);
    store.change(edit(3, '8.03'));
    expect([...store.sampleOf(A)!.values]).toEqual([8.02, 8.03]);
  });

  it('says what failed when it cannot be opened', async () => {
    server.mode = 'away';
    const store = await opened();
    expect(store.state).toBe('failed');
    expect(store.failure).toMatchObject({ status: 503 });
  });

  it('gives readings in parts, the same object while nothing changes, and nothing where a column is gone', async () => {
    const store = await opened();
    const B = 'column-b';
    const label = { ...column, id: B, name: 'kiln', kind: 'label', unit: '' } as const;
    store.change({ kind: 'add-columns', columns: [{ ...label, cells: ['north', 'south', 'north'] }] });
    const split = store.sampleInParts(A, { split: B })!;
    expect(split.groups!.samples.map(({ name, values }) => [name, [...values]])).toEqual([
      ['north', [8.01]],
      ['south', [8.02]],
    ]);
    // The third cell is no number: the level it belongs to says so.
    expect(split.groups!.samples[0]!.unreadable).toBe(1);
    expect(store.sampleInParts(A, null)).toBe(store.sampleOf(A));
    expect(store.sampleInParts(A, { beside: [A] })!.groups!.samples).toHaveLength(2);
    expect(store.sampleInParts(A, { split: 'column-z' })).toBeNull();
    expect(store.sampleInParts('column-z', null)).toBeNull();
    store.change(edit(2, '9.9'));
    expect([...store.sampleInParts(A, { split: B })!.groups!.samples[1]!.values]).toEqual([9.9]);
    await settle();
  });
});

describe('a change that cannot be done', () => {
  it('is refused on the page by the rule of the server, and never sent', async () => {
    const store = useStudy();
    await store.open('study-0001');
    store.change({ kind: 'set-aside', readings: [{ column: A, row: 999_999, reason: 'r' }] });
    expect(store.refused?.detail).toBe('There is no row 999\u202f999.');
    store.change({ kind: 'thaw-column', column: A, derivation: { kind: 'rank', source: A } });
    expect(store.refused?.detail).toContain('Only undoing a change');
    store.change({ kind: 'remove-columns', columns: [A, A] });
    expect(store.refused?.detail).toBe('A column is listed twice.');
    expect(await store.drained()).toBe(true);
    expect(server.sent).toEqual([]);
    expect(store.cells[A]).toEqual(['8.01', '8.02', 'x']);
  });

  it('is no text with half a surrogate pair: page and server hold the same characters', async () => {
    const store = useStudy();
    await store.open('study-0001');
    store.change(edit(1, '8.01\ud83d'));
    expect(store.cells[A]![0]).toBe('8.01\ufffd');
    await store.drained();
    expect(server.cells[A]![0]).toBe('8.01\ufffd');
  });
});
