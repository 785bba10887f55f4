import type { StudyFile } from '@verdict/contract';
import { advance, analysisById } from '@verdict/core/analyses';
import { fingerprintOf, toSample } from '@verdict/core/readings';
import type { TableColumn } from '@verdict/core/table';
import { createChance, type Chance } from './chance.js';
import { newColumn, someChange } from './changes.js';
import { mutate } from './mutate.js';
import { createAsker, request, someStudy, type Asker } from './server.js';
import { stateOf } from './state.js';

export interface Report {
  /** Requests that were to do something, half of them crafted. */
  tries: number;
  /** Requests that only looked at what had become of it. */
  looks: number;
  /** Answers by status. */
  counts: Record<number, number>;
  /** Changes that were accepted, each taken back again and compared. */
  accepted: number;
  /** Study files that were opened, and read back. */
  opened: number;
  /** What must not happen: an answer of 500 or none, or a change that undo does not take back wholly. */
  faults: string[];
}

/** Requests of which this share is changed in one to three places. */
const MUTATED = 0.65;
/** Changes after which a study is left for a new one: its record is long enough. */
const CHANGES_OF_A_STUDY = 40;

interface World {
  chance: Chance;
  asker: Asker;
  report: Report;
  id: string;
  file: StudyFile;
  /** A study and a column of it that the requests have no business with. */
  others: string[];
}

function changed<T extends object>({ chance, others, file }: World, body: T): T {
  if (!chance.holds(MUTATED)) return body;
  const ids = [...others, ...file.columns.map(({ id }) => id), ...file.evidence.map(({ id }) => id)];
  for (let i = 1 + chance.upTo(3); i > 0; i--) mutate(chance, body as never, ids);
  return body;
}

async function freshStudy(world: World): Promise<void> {
  world.id = await someStudy(world.asker, world.chance);
  world.file = await world.asker.saved(world.id);
}

const step = (world: World, revision: number, what: string) =>
  world.asker.post(`/studies/${world.id}/steps`, request(world.chance, revision, { step: what }));

/** Takes the last change back, and looks whether everything is as it was. */
async function takeBack(world: World, said: string): Promise<void> {
  const { asker, report, file, id, chance } = world;
  const known = new Set(file.columns.map((column) => column.id));
  const after = await asker.saved(id);
  const undone = await step(world, after.study.revision, 'undo');
  const back = await asker.saved(id);
  if (undone.status !== 200)
    report.faults.push(`undo answered ${undone.status}: ${JSON.stringify(undone.body)}: ${said}`);
  else if (stateOf(back, known) !== stateOf(file, known)) report.faults.push(`undo left another state: ${said}`);
  world.file = back;
  if (chance.holds(0.5)) return;
  const redone = await step(world, back.study.revision, 'redo');
  const again = await asker.saved(id);
  const all = new Set(after.columns.map((column) => column.id));
  if (redone.status !== 200)
    report.faults.push(`redo answered ${redone.status}: ${JSON.stringify(redone.body)}: ${said}`);
  else if (stateOf(again, all) !== stateOf(after, all)) report.faults.push(`redo left another state: ${said}`);
  world.file = again;
}

async function tryChange(world: World): Promise<void> {
  const { chance, asker, report, file, id } = world;
  const body = changed(world, request(chance, file.study.revision, { change: someChange(chance, file) }));
  const text = JSON.stringify(body);
  const { status, body: answer } = await asker.ask('POST', `/studies/${id}/changes`, text);
  if (status !== 200 || (answer as { revision: number }).revision === file.study.revision) return;
  report.accepted++;
  await takeBack(world, text.slice(0, 3_000));
}

async function tryStep(world: World): Promise<void> {
  const { chance, asker, file, id } = world;
  const what = { step: chance.of(['undo', 'redo', 'take-back']), target: 1 + chance.upTo(file.study.revision) };
  const body = changed(world, request(chance, file.study.revision, what));
  await asker.post(`/studies/${id}/steps`, body);
  world.file = await asker.saved(id);
}

async function tryImport(world: World): Promise<void> {
  const { chance, asker, report, file, id } = world;
  const { cells: _, ...column } = newColumn(chance, `i${chance.upTo(1e6)}`, []);
  const more = {
    columns: [column],
    separator: chance.of(['comma', 'tab', 'none', 'blanks']),
    skip: chance.upTo(2),
    encoding: 'utf-8',
  };
  const head = JSON.stringify(changed(world, request(chance, file.study.revision, more)));
  const rows = chance.of([
    '1\n2\n3\n',
    '1,2\r\n3\n\r"5" x\n',
    '"open',
    '',
    '\n\n\n',
    '\ufeff1\r2',
    `${'9'.repeat(1_001)}\n`,
  ]);
  const { status } = await asker.ask(
    'POST',
    `/studies/${id}/imports`,
    chance.holds(0.9) ? `${head}\n${rows}` : rows,
    'text/plain',
  );
  if (status !== 200) return;
  report.accepted++;
  await takeBack(world, `import ${head} ${rows}`);
}

async function tryFile(world: World): Promise<void> {
  const { asker, report, file } = world;
  const text = JSON.stringify(changed(world, structuredClone(file)));
  const { status, body } = await asker.ask('POST', '/studies/saved?who=fuzz', text);
  if (status !== 201) return;
  report.opened++;
  const { id } = body as { id: string };
  for (const path of ['', '/cells', '/changes', '/evidence', '/evidence/stale', '/looks', '/saved', '/audit']) {
    const read = await asker.ask('GET', `/studies/${id}${path}`);
    if (read.status !== 200)
      report.faults.push(`an opened study answered ${read.status} at ${path}: ${text.slice(0, 3_000)}`);
  }
  const again = await asker.post('/studies/saved?who=fuzz', await asker.saved(id));
  if (again.status !== 201) report.faults.push(`a copy of an opened study is refused: ${JSON.stringify(again.body)}`);
}

/** What a page would keep of the figures of the first written column. */
function keepable({ chance, file }: World): object | null {
  const column = file.columns.find(({ removed, derivation, kind }) => !removed && !derivation && kind === 'measure');
  if (!column) return null;
  const rows = new Set(file.setAside.filter(({ columnId }) => columnId === column.id).map(({ row }) => row));
  const cells = Array.from({ length: file.study.rowCount }, (_, i) => column.cells[i] ?? '');
  const sample = toSample(column as TableColumn, cells, rows);
  const made = advance('describe', { column: column.name }, sample, []);
  return {
    ...{ id: chance.id(), who: 'fuzzer', analysis: 'describe', version: analysisById('describe').version },
    ...{ column: column.id, parts: null, request: { column: column.name }, fingerprint: fingerprintOf(sample) },
    ...{ result: made.done ? made.result : {}, note: '' },
  };
}

async function tryEvidence(world: World): Promise<void> {
  const { chance, asker, id } = world;
  const keep = keepable(world);
  if (keep) await asker.post(`/studies/${id}/evidence`, changed(world, JSON.parse(JSON.stringify(keep)) as object));
  world.file = await asker.saved(id);
  const kept = world.file.evidence.at(-1);
  if (!kept) return;
  const answer = { to: 'The p-value is an upper bound.', words: 'seen', who: 'fuzzer' };
  const said = chance.of([{ note: 'looks right' }, { leftOut: true }, { leads: true }, { answer }, {}]);
  if (chance.holds(0.7)) await asker.post(`/evidence/${kept.id}`, changed(world, said));
  const order = world.file.evidence.map((piece) => piece.id).reverse();
  if (chance.holds(0.3)) await asker.post(`/studies/${id}/evidence/order`, changed(world, { order }));
  const look = { digest: 'ab'.repeat(32), analysis: 'describe', column: null, tests: 3 };
  if (chance.holds(0.3)) await asker.post(`/studies/${id}/looks`, changed(world, { looks: [look] }));
  if (chance.holds(0.3)) await asker.ask('GET', `/studies/${id}/evidence/stale`);
  if (chance.holds(0.5)) await asker.post(`/evidence/${kept.id}/recompute`, {});
  world.file = await asker.saved(id);
}

/** Whatever was done to a study, it agrees with its record. */
async function audited({ asker, report, id }: World): Promise<void> {
  const { status, body } = await asker.ask('GET', `/studies/${id}/audit`);
  const { notVerified } = body as { notVerified?: string | null };
  if (status !== 200 || notVerified !== null)
    report.faults.push(`the check of study ${id} answered ${status}: ${notVerified}`);
}

async function tryVerdict(world: World): Promise<void> {
  const { chance, asker, file, id } = world;
  const { revision } = file.study;
  const evidence = file.evidence.map((piece) => piece.id);
  const named = chance.of([{ decision: 'not-settled' }, { decision: 'treat-as-family', family: 'gamma' }]);
  const ruling = { revision, who: 'fuzzer', ...named, reason: 'too few', evidence, leftOpen: chance.of(['', 'time']) };
  await asker.post(`/studies/${id}/verdict`, changed(world, ruling));
  if (chance.holds(0.5))
    await asker.post(`/studies/${id}/changes`, request(chance, revision + 1, { change: someChange(chance, file) }));
  await asker.post(`/studies/${id}/reopen`, changed(world, { revision: revision + 1, who: 'fuzzer', reason: 'again' }));
  world.file = await asker.saved(id);
  if (world.file.study.state !== 'ruled') return;
  await audited(world);
  await freshStudy(world);
}

async function tryStudies(world: World): Promise<void> {
  const { chance, asker, id, file } = world;
  await asker.post('/studies', changed(world, { name: 'another' }));
  await asker.ask('DELETE', `/studies/${id}?who=fuzz`);
  await asker.post(
    `/studies/${id}/changes`,
    request(chance, file.study.revision, { change: someChange(chance, file) }),
  );
  await asker.post(`/studies/${id}/restore?who=fuzz`, {});
  await asker.ask(
    'GET',
    chance.of(['/studies', '/studies?bin=1', '/studies?bin[]=1', '/studies/%', `/studies/${id}x`]),
  );
  const body = chance.of(['', '{', '[]', '1', '"x"', '{"name":{}}', '['.repeat(10_000)]);
  await asker.ask(
    'POST',
    '/studies',
    body,
    chance.of(['application/json', 'application/json; charset=utf-16', 'application/json; charset=none']),
  );
}

const WEIGHTED: readonly (readonly [number, (world: World) => Promise<void>])[] = [
  [60, tryChange],
  [6, tryStep],
  [6, tryImport],
  [12, tryFile],
  [7, tryEvidence],
  [4, tryVerdict],
  [5, tryStudies],
];
const TRIES = WEIGHTED.flatMap(([weight, attempt]) => new Array<typeof attempt>(weight).fill(attempt));

/**
 * Asks a server for valid and for crafted things, in turn, and looks at what becomes of it: every endpoint, every kind of change, study
 * files; each accepted change is taken back and everything compared.
 * @param url the address of the API, without a slash behind
 */
export async function fuzz(url: string, { seed, tries }: { seed: number; tries: number }): Promise<Report> {
  const chance = createChance(seed);
  const asker = createAsker(url);
  const report: Report = { tries: 0, looks: 0, counts: asker.counts, accepted: 0, opened: 0, faults: asker.faults };
  const other = await someStudy(asker, chance);
  const { columns } = await asker.saved(other);
  const world: World = {
    chance,
    asker,
    report,
    id: '',
    file: null as never,
    others: [other, ...columns.map(({ id }) => id)],
  };
  await freshStudy(world);
  while (asker.asked() < tries) {
    await chance.of(TRIES)(world);
    if (world.file.study.revision <= CHANGES_OF_A_STUDY) continue;
    await audited(world);
    await freshStudy(world);
  }
  await audited(world);
  return { ...report, tries: asker.asked(), looks: asker.looked() };
}
