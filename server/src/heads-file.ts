import { faultWords, type Audit, type ChainEnd, type Checked } from '@verdict/contract';
import { appendFile, readFile } from 'node:fs/promises';
import { OneByOne } from './jobs/one-by-one.js';
import { chainEnd } from './store/chain.js';
import { noteAudit } from './store/audit-stored.js';
import type { Database } from './store/database.js';

/**
 * A file outside the database to which the head of a study's chain is added after every change: whoever controls the database could rewrite a whole
 * chain, but could not make it agree with this file. A line: when, the study, entries, head.
 */
export class HeadsFile {
  readonly #notes: OneByOne<string>;

  /** @param path null for none */
  constructor(
    private readonly db: Database,
    private readonly path: string | null,
    failed: (error: unknown) => void,
  ) {
    this.#notes = new OneByOne((id) => this.#add(id), failed);
  }

  note(studyId: string): void {
    if (this.path) this.#notes.want(studyId, studyId);
  }

  async #add(studyId: string): Promise<void> {
    const { entries, head } = await chainEnd(this.db, studyId);
    if (head === null) return;
    const line = [new Date().toISOString(), studyId, entries, head].join(' ');
    await appendFile(this.path!, `${line}\n`, { mode: 0o600 });
  }

  /** An audit with what the file says of the study beside it, which stands with the study from then on too. */
  async checked(studyId: string, audit: Audit, chain: readonly ChainEnd[]): Promise<Checked> {
    const own = await this.#faults(studyId, chain);
    const whole = { ...audit, faults: [...audit.faults, ...own] };
    if (own.length > 0) await noteAudit(this.db, studyId, whole);
    return { ...whole, notVerified: faultWords(whole) };
  }

  async #faults(studyId: string, chain: readonly ChainEnd[]): Promise<Audit['faults']> {
    if (!this.path) return [];
    const text = await readFile(this.path, 'utf8').catch(() => '');
    const hashes = new Map(chain.map(({ entries, head }) => [entries, head]));
    const faults = new Map<number, string>();
    for (const line of text.split('\n')) {
      const [, id, entry, head] = line.split(' ');
      if (id !== studyId || hashes.get(Number(entry)) === head) continue;
      faults.set(Number(entry), `entry ${entry} does not match the file of heads.`);
    }
    return [...faults].map(([entry, words]) => ({ entry, text: words }));
  }
}
