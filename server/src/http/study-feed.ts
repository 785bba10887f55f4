import type { Announced } from '@verdict/contract';
import type { Request, Response } from 'express';
import { EventEmitter } from 'node:events';

const HEARTBEAT_MILLISECONDS = 25_000;

/** The channel of all jobs; every other one is that of the study with this id. */
export const JOBS = 'jobs';

/** Tells every window on a study what was changed, kept and worked out, and those on the jobs how far these are, as server-sent events. */
export class StudyFeed {
  readonly #changes = new EventEmitter({ captureRejections: false }).setMaxListeners(0);

  /** @param changed called with the id of a study that something was done to */
  constructor(private readonly changed: (studyId: string) => void = () => undefined) {}

  announce(studyId: string, change: Announced | null): void {
    if (change) this.tell(studyId, 'change', change);
  }

  tell(channel: string, event: string, data: unknown): void {
    if (event === 'change' || event === 'kept') this.changed(channel);
    this.#changes.emit(channel, event, data);
  }

  /**
   * Keeps the answer open and writes each event of a channel into it; the first says how things stand now. Whatever happens while that is read is held back until it is
   * said, and not missed.
   */
  async follow(channel: string, standing: () => Promise<object>, req: Request, res: Response): Promise<void> {
    const write = (event: string, data: unknown) => res.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
    let held: { event: string; data: unknown }[] | null = [];
    const send = (event: string, data: unknown) => {
      if (held) held.push({ event, data });
      else write(event, data);
    };
    let beat: NodeJS.Timeout | undefined;
    const leave = () => {
      clearInterval(beat);
      this.#changes.off(channel, send);
    };
    this.#changes.on(channel, send);
    req.on('close', leave);
    try {
      const now = await standing();
      if (req.destroyed) return;
      res.writeHead(200, { 'Content-Type': 'text/event-stream', Connection: 'keep-alive', 'X-Accel-Buffering': 'no' });
      write('standing', now);
      const meanwhile = held;
      held = null;
      for (const { event, data } of meanwhile) write(event, data);
      beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MILLISECONDS);
    } catch (error) {
      leave();
      throw error;
    }
  }
}
