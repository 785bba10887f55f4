import type { Announced } from '@verdict/contract';
import type { Request, Response } from 'express';
import { EventEmitter } from 'node:events';

const HEARTBEAT_MILLISECONDS = 25_000;

/**
 * Sends changes, evidence and results to every window of a study, and progress to the jobs page, as server-sent events: one stream for each browser,
 * however many windows it has, since a browser opens six connections at most.
 */
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
   * Keeps the answer open and writes each event of these channels into it; the first of each says how things stand there now. Whatever happens while that is read is held
   * back until it is said, and not missed. A channel that is not there is left out, unless there is no other.
   */
  async follow(
    channels: readonly string[],
    standing: (channel: string) => Promise<object>,
    req: Request,
    res: Response,
  ): Promise<void> {
    const write = (event: string, of: string, told: unknown) =>
      res.write(`event: ${event}\ndata: ${JSON.stringify({ of, told })}\n\n`);
    let held: Parameters<typeof write>[] | null = [];
    const hearers = new Map(
      channels.map((channel) => {
        const hear = (event: string, data: unknown) =>
          held ? held.push([event, channel, data]) : write(event, channel, data);
        return [channel, hear] as const;
      }),
    );
    let beat: NodeJS.Timeout | undefined;
    const leave = () => {
      clearInterval(beat);
      for (const [channel, hear] of hearers) this.#changes.off(channel, hear);
    };
    for (const [channel, hear] of hearers) this.#changes.on(channel, hear);
    req.on('close', leave);
    try {
      const found = await Promise.allSettled(channels.map(standing));
      const [first] = found;
      if (first?.status === 'rejected' && found.every(({ status }) => status === 'rejected')) throw first.reason;
      if (req.destroyed) return;
      res.writeHead(200, { 'Content-Type': 'text/event-stream', Connection: 'keep-alive', 'X-Accel-Buffering': 'no' });
      for (const [i, now] of found.entries())
        if (now.status === 'fulfilled') write('standing', channels[i]!, now.value);
      const meanwhile = held;
      held = null;
      for (const told of meanwhile) write(...told);
      beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MILLISECONDS);
    } catch (error) {
      leave();
      throw error;
    }
  }
}
