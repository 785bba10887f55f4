import type { Request, Response } from 'express';
import { EventEmitter } from 'node:events';
import { describe, expect, it } from 'vitest';
import { StudyFeed } from '../src/http/study-feed.js';

/** An answer that keeps what is written into it. */
function follower() {
  const written: string[] = [];
  const req = Object.assign(new EventEmitter(), { destroyed: false });
  const res = { writeHead: () => res, write: (text: string) => written.push(text) };
  return { req: req as unknown as Request, res: res as unknown as Response, written, leave: () => req.emit('close') };
}
const change = { revision: 2, text: 'x', who: 'me', change: null, reason: null } as never;

describe('who follows a study', () => {
  it('misses nothing that happens while it is read how the study stands', async () => {
    const feed = new StudyFeed();
    const { req, res, written, leave } = follower();
    let stands = (_: object): void => undefined;
    const following = feed.follow(['s1'], () => new Promise((resolve) => (stands = resolve)), req, res);
    feed.announce('s1', change);
    expect(written).toEqual([]);
    stands({ revision: 1 });
    await following;
    feed.tell('s1', 'kept', { id: 'e' });
    feed.tell('s2', 'kept', { id: 'other' });
    expect(written.map((text) => text.split('\n')[0])).toEqual(['event: standing', 'event: change', 'event: kept']);
    leave();
    feed.announce('s1', change);
    expect(written).toHaveLength(3);
  });

  it('covers several studies at once, and ignores a missing one', async () => {
    const feed = new StudyFeed();
    const { req, res, written } = follower();
    const standing = (id: string) => (id === 'gone' ? Promise.reject(new Error('not found')) : Promise.resolve({ id }));
    await feed.follow(['s1', 'gone', 's2'], standing, req, res);
    feed.tell('s2', 'kept', { id: 'e' });
    expect(written.map((text) => text.split('\n')[1])).toEqual([
      'data: {"of":"s1","told":{"id":"s1"}}',
      'data: {"of":"s2","told":{"id":"s2"}}',
      'data: {"of":"s2","told":{"id":"e"}}',
    ]);
  });

  it('of a missing study gives the reason and ends', async () => {
    const feed = new StudyFeed();
    const { req, res, written } = follower();
    await expect(feed.follow(['gone'], () => Promise.reject(new Error('not found')), req, res)).rejects.toThrow(
      'not found',
    );
    feed.announce('gone', change);
    expect(written).toEqual([]);
  });
});
