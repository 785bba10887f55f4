import type { Announced } from '@verdict/contract';
import type { Request, Response } from 'express';
import { EventEmitter } from 'node:events';

const HEARTBEAT_MILLISECONDS = 25_000;

/** Tells every window on a study what was changed, kept and worked out, as server-sent events. */
export class StudyFeed {
  readonly #changes = new EventEmitter({ captureRejections: false }).setMaxListeners(0);

  announce(studyId: string, change: Announced | null): void {
    if (change) this.tell(studyId, 'change', change);
  }

  tell(studyId: string, event: string, data: unknown): void {
    this.#changes.emit(studyId, event, data);
  }

  /** Keeps the answer open and writes each change into it; the first event says where the study stands now, and how much evidence is kept of it. */
  follow(studyId: string, standing: { revision: number; kept: number }, req: Request, res: Response): void {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', Connection: 'keep-alive', 'X-Accel-Buffering': 'no' });
    const send = (event: string, data: unknown) => res.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
    send('standing', standing);
    const beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MILLISECONDS);
    this.#changes.on(studyId, send);
    req.on('close', () => {
      clearInterval(beat);
      this.#changes.off(studyId, send);
    });
  }
}
