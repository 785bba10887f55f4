import type { Evidence, KeepInput, Problem } from '@verdict/contract';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useEvidence } from '../src/stores/evidence.js';
import { until } from './until.js';

const piece = (id: string, more: Partial<Evidence> = {}) => ({ id, note: '', recomputed: null, ...more }) as Evidence;
const gone: Problem = { type: 'about:blank', title: 't', status: 503, code: 'database-gone', detail: 'No database.' };

/** What the server answers, path by path; a test may hold an answer back. */
const answers = new Map<string, () => Response | Promise<Response>>();
const asked: string[] = [];
beforeEach(() => {
  answers.clear();
  asked.length = 0;
  setActivePinia(createPinia());
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(String(url));
    return answers.get(String(url))!();
  });
});
const list = (study: string, ...pieces: Evidence[]) =>
  answers.set(`/api/studies/${study}/evidence`, () => Response.json(pieces));

describe('the evidence of the open study', () => {
  it('is not said to be none where it could not be read, and is read again once the stream stands', async () => {
    const store = useEvidence();
    answers.set('/api/studies/one/evidence', () => Response.json(gone, { status: 503 }));
    await store.load('one');
    expect(store.unread).toMatchObject({ detail: 'No database.' });
    list('one', piece('a'));
    store.stands('one', 0);
    await until(() => expect(store.items.map(({ id }) => id)).toEqual(['a']));
    expect(store.unread).toBeNull();
  });

  it('does not take what comes late for another study', async () => {
    const store = useEvidence();
    let release: () => void = () => undefined;
    answers.set(
      '/api/studies/one/evidence',
      () => new Promise((resolve) => (release = () => resolve(Response.json([piece('a')])))),
    );
    list('two', piece('b'));
    const late = store.load('one');
    await store.load('two');
    release();
    await late;
    expect(store.items.map(({ id }) => id)).toEqual(['b']);
  });

  it('takes in what another window kept or noted on, without asking for its own twice', async () => {
    const store = useEvidence();
    list('one');
    await store.load('one');
    list('one', piece('a', { note: 'second gauge' }));
    store.heardOf('one', 'a');
    await until(() => expect(store.items[0]?.note).toBe('second gauge'));
    asked.length = 0;
    answers.set('/api/studies/one/evidence', () => {
      // Told of the own piece before it is answered.
      store.heardOf('one', 'b');
      return Response.json(piece('b'), { status: 201 });
    });
    await store.keep('one', { id: 'b' } as KeepInput);
    expect(store.items.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(asked).toHaveLength(1);
  });

  it('asks again on connecting only where something is missing', async () => {
    const store = useEvidence();
    list('one', piece('a', { recomputed: { same: true, at: '' } }));
    await store.load('one');
    asked.length = 0;
    store.stands('one', 1);
    expect(asked).toEqual([]);
    store.stands('one', 2);
    expect(asked).toHaveLength(1);
  });

  it('is led by one piece: the others step back as it is told', async () => {
    const store = useEvidence();
    list('one', piece('a', { leads: true }), piece('b'));
    await store.load('one');
    answers.set('/api/evidence/b', () => Response.json(piece('b', { leads: true })));
    await store.say('b', { leads: true });
    expect(store.items.map(({ leads }) => leads)).toEqual([false, true]);
  });

  it('stands in its new order at once, and in the old one again where the server refuses', async () => {
    const store = useEvidence();
    list('one', piece('a', { place: null }), piece('b', { place: null }));
    await store.load('one');
    answers.set('/api/studies/one/evidence/order', () => new Response(null, { status: 204 }));
    const done = store.arrange(['b', 'a']);
    expect(store.items.map(({ id, place }) => [id, place])).toEqual([
      ['a', 1],
      ['b', 0],
    ]);
    await done;
    answers.set('/api/studies/one/evidence/order', () => Response.json(gone, { status: 503 }));
    await store.arrange(['a', 'b']);
    expect(store.items.map(({ place }) => place)).toEqual([1, 0]);
    expect(store.problem).toMatchObject({ detail: 'No database.' });
  });

  it('is asked about its readings only where some were kept at another change', async () => {
    const store = useEvidence();
    list('one', piece('a', { column: 'c', revision: 3 }), piece('b', { column: null, revision: 1 }));
    await store.load('one');
    asked.length = 0;
    await store.lookStale('one', 3);
    expect(asked).toEqual([]);
    answers.set('/api/studies/one/evidence/stale', () => Response.json({ revision: 4, stale: ['a'] }));
    await store.lookStale('one', 4);
    expect([...store.stale]).toEqual(['a']);
    // Another study is open by the time the answer comes.
    list('two');
    const late = store.lookStale('one', 5);
    await store.load('two');
    await late;
    expect(store.stale.size).toBe(0);
  });
});
