/**
 * One stream of events for all windows of a browser: it opens six connections to a server at most, and each stream would take one. One window, the leader, holds the
 * stream for what all of them want and passes on what it hears. When it closes, the next one takes over.
 */
type Hear = (event: string, told: unknown) => void;
type Message = { kind: 'want'; from: string; channels: string[] } | { kind: 'ask' } | Notation;
interface Notation {
  kind: 'told';
  of: string;
  event: string;
  told: unknown;
}

const EVENTS = ['standing', 'change', 'evidence', 'kept', 'job'];
/** Windows that open or change at the same moment are taken together. */
const GATHER_MILLISECONDS = 40;

class SharedFeed {
  readonly #self = crypto.randomUUID();
  readonly #windows = new BroadcastChannel('verdict-feed');
  readonly #hearers = new Map<string, Set<Hear>>();
  /** What each window wants, as the leader knows it. */
  readonly #wanted = new Map<string, string[]>();
  #leads = false;
  #stream: EventSource | null = null;
  #gathering: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    this.#windows.onmessage = ({ data }: MessageEvent<Message>) => this.#receive(data);
    // Held until the window closes; then the next one that waits has it.
    void navigator.locks.request('verdict-feed', () => {
      this.#leads = true;
      this.#send({ kind: 'ask' });
      this.#want(this.#self, [...this.#hearers.keys()]);
      return new Promise(() => undefined);
    });
    addEventListener('pagehide', () => this.#send({ kind: 'want', from: this.#self, channels: [] }));
  }

  /** Subscribes to a channel; the first event gives the present state. Returns a function that stops. */
  follow(channel: string, hear: Hear): () => void {
    const hearers = this.#hearers.get(channel) ?? new Set();
    this.#hearers.set(channel, hearers.add(hear));
    this.#tell();
    return () => {
      hearers.delete(hear);
      if (hearers.size === 0 && this.#hearers.get(channel) === hearers) this.#hearers.delete(channel);
      this.#tell();
    };
  }

  #tell(): void {
    const channels = [...this.#hearers.keys()];
    if (this.#leads) this.#want(this.#self, channels);
    else this.#send({ kind: 'want', from: this.#self, channels });
  }

  #send(message: Message): void {
    this.#windows.postMessage(message);
  }

  #receive(message: Message): void {
    if (message.kind === 'told') this.#hear(message);
    else if (message.kind === 'ask') this.#tell();
    else if (this.#leads) this.#want(message.from, message.channels);
  }

  #hear({ of, event, told }: Notation): void {
    for (const hear of this.#hearers.get(of) ?? []) hear(event, told);
  }

  /** The stream is reopened for every new subscription, so that each window gets the present state and missed events. */
  #want(from: string, channels: string[]): void {
    if (channels.length > 0) this.#wanted.set(from, channels);
    else this.#wanted.delete(from);
    clearTimeout(this.#gathering);
    this.#gathering = setTimeout(() => this.#open(), GATHER_MILLISECONDS);
  }

  #open(): void {
    this.#stream?.close();
    this.#stream = null;
    const channels = [...new Set([...this.#wanted.values()].flat())].sort();
    if (channels.length === 0) return;
    const stream = new EventSource(`/api/events?${channels.map((of) => `of=${encodeURIComponent(of)}`).join('&')}`);
    this.#stream = stream;
    for (const event of EVENTS)
      stream.addEventListener(event, ({ data }: MessageEvent<string>) => {
        const { of, told } = JSON.parse(data) as { of: string; told: unknown };
        const message: Notation = { kind: 'told', of, event, told };
        this.#hear(message);
        this.#send(message);
      });
  }
}

let feed: SharedFeed | null = null;

/** Follows a study, or the jobs of all; returns how to stop following. */
export const followChannel = (channel: string, hear: Hear): (() => void) =>
  (feed ??= new SharedFeed()).follow(channel, hear);
