import { auditFile, faultWords, type Checked } from '@verdict/contract';
import { createReadStream } from 'node:fs';
import { z } from 'zod';
import { BadInput } from './bad-input.js';

/** The running Verdict, where there is one: its address and what it lets the command line in with. */
export interface Server {
  url: string;
  token: string | null;
}

interface Outcome {
  name: string;
  checked: Checked;
}

async function ofFile(file: string): Promise<Outcome> {
  try {
    const { audit, study } = await auditFile(createReadStream(file));
    return { name: study.study.name || file, checked: { ...audit, notVerified: faultWords(audit) } };
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (typeof code === 'string')
      throw new BadInput(`${file} cannot be read: ${code === 'ENOENT' ? 'the file does not exist' : message}.`);
    const said = error instanceof z.ZodError ? error.issues[0]!.message : message;
    throw new BadInput(`${file} is not a study file, or it is damaged: ${said}`);
  }
}

async function ofServer(server: Server | null): Promise<Outcome[]> {
  if (!server) throw new BadInput('Verdict is not running. Start it with npm start, then check all studies.');
  const headers = server.token === null ? {} : { Authorization: `Bearer ${server.token}` };
  async function get<T>(path: string): Promise<T> {
    const response = await fetch(`${server!.url}api${path}`, { headers });
    if (!response.ok) throw new BadInput(`Verdict at ${server!.url} answered ${response.status}.`);
    return (await response.json()) as T;
  }
  const studies = [...(await get<Named[]>('/studies')), ...(await get<Named[]>('/studies?bin=1'))];
  const outcomes: Outcome[] = [];
  for (const { id, name } of studies)
    outcomes.push({ name: name || id, checked: await get<Checked>(`/studies/${id}/audit`) });
  return outcomes;
}
interface Named {
  id: string;
  name: string;
}

function wordsOf({ name, checked }: Outcome): string {
  const { entries, head, earlier, faults, notVerified } = checked;
  const before = earlier > 0 ? `, ${earlier} recorded before the chain began and not verified` : '';
  if (notVerified === null)
    return head === null
      ? `no chain      ${name}${before}`
      : `verified      ${name}: entries ${entries}${before}, head ${head}`;
  return [`NOT VERIFIED  ${name}`, ...faults.map(({ text }) => `              ${text}`)].join('\n');
}

/** Checks a study file, or with --all every study of the running Verdict, against its record. True where nothing was found. */
export async function audit(
  args: readonly string[],
  all: boolean,
  server: () => Server | null,
): Promise<{ text: string; sound: boolean }> {
  const [file, ...more] = args;
  if (more.length > 0 || all === (file !== undefined))
    throw new BadInput(
      'Usage: verdict audit <study file>, or verdict audit --all for every study of the running Verdict.',
    );
  const outcomes = file === undefined ? await ofServer(server()) : [await ofFile(file)];
  return {
    text: `${outcomes.map(wordsOf).join('\n')}\n`,
    sound: outcomes.every(({ checked }) => checked.notVerified === null),
  };
}
