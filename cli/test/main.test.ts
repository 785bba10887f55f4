import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { linkAfter, type StudyFile } from '@verdict/contract';
import { describeAnalysis } from '@verdict/core/analyses';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { tileThickness } from '../../demo/generate.js';
import { readFileSync } from 'node:fs';
import { main } from '../src/main.js';

const DEMO = fileURLToPath(new URL('../../demo/tile-thickness.csv', import.meta.url));
const dir = mkdtempSync(join(tmpdir(), 'verdict-cli-'));
afterAll(() => rmSync(dir, { recursive: true }));

async function verdict(...args: string[]) {
  let out = '';
  let error = '';
  const code = await main(args, { out: (text) => (out += text), error: (text) => (error += text) });
  return { code, out, error };
}
function file(text: string): string {
  const path = join(dir, `${Math.random()}.csv`);
  writeFileSync(path, text);
  return path;
}

describe('the command line', () => {
  it('ends with 2 where the input can be mended, and with 70 where the fault is its own', async () => {
    for (const args of [['nonsense'], ['describe', '/no/such/file'], ['describe', DEMO, '--foo'], []])
      expect((await verdict(...args)).code, args.join(' ')).toBe(2);
    const broken = vi.spyOn(describeAnalysis, 'resolve').mockImplementation(() => {
      throw new TypeError('of undefined');
    });
    const { code, error } = await verdict('describe', DEMO, '--column', 'thickness');
    broken.mockRestore();
    expect([code, error]).toEqual([70, 'This is an error in Verdict, not in the input: of undefined\n']);
  });

  it('prints analysis, version, request and result as JSON', async () => {
    const { code, out, error } = await verdict(
      'normality',
      DEMO,
      '--column',
      'thickness',
      '--options',
      '{"replicates":999,"seed":3}',
    );
    expect([code, error]).toEqual([0, '']);
    expect(JSON.parse(out)).toMatchObject({
      analysis: 'normality',
      version: 6,
      request: { column: 'thickness', test: 'anderson-darling', alpha: 0.05, replicates: 999, seed: 3 },
      result: { available: true, n: 48, main: 'anderson-darling' },
    });
    const { tests } = JSON.parse(out).result as { tests: { test: string; pMethod: string }[] };
    expect(tests.map(({ pMethod }) => pMethod)).toEqual(new Array(9).fill('simulated'));
  });

  it('holds claims against columns, labels and figures that are typed', async () => {
    const labels = file('fault,shift\nchip,early\ncrack,late\nchip,late\nchip,early\nstain,early\ncrack,late\n');
    const counted = JSON.parse((await verdict('counts-claim', labels, '--column', 'fault')).out) as {
      result: { cells: { label: string; observed: number }[] };
    };
    expect(counted.result.cells.map(({ label, observed }) => `${label} ${observed}`)).toEqual([
      'chip 3',
      'crack 2',
      'stain 1',
    ]);
    const table = await verdict('table-claim', labels, '--column', 'fault', '--split', 'shift');
    expect(JSON.parse(table.out)).toMatchObject({ result: { available: true, df: 2 } });
    const typed = await verdict('mean-claim', '--options', '{"figures":{"n":12,"mean":8.1,"sd":0.1},"claimed":8}');
    expect(JSON.parse(typed.out)).toMatchObject({ result: { available: true, typed: true, df: 11 } });
    const both = await verdict(
      'mean-claim',
      DEMO,
      '--column',
      'thickness',
      '--options',
      '{"figures":{"n":12,"mean":8.1,"sd":0.1}}',
    );
    expect([both.code, both.error]).toEqual([2, 'figures: Give either a column or typed figures, not both.\n']);
  });

  it('answers for a distribution without any file, and counts the readings of one when it is given', async () => {
    const question = '{"family":"normal","parameters":{"mean":8.02,"sd":0.11},"above":8.2}';
    const alone = await verdict('distribution', '--options', question);
    expect([alone.code, alone.error]).toEqual([0, '']);
    expect(JSON.parse(alone.out)).toMatchObject({
      analysis: 'distribution',
      method:
        'For a normal distribution with mean 8.02 and standard deviation 0.11, what is the probability of a value above 8.2?',
      result: { probability: expect.closeTo(0.0508817524756, 12), question: 'above' },
    });
    const beside = await verdict('distribution', DEMO, '--column', 'thickness', '--options', question);
    expect(JSON.parse(beside.out).result.readings).toMatchObject({ column: 'thickness', n: 48 });
    const wrong = await verdict('distribution', '--options', '{"family":"gauss","below":1}');
    expect([wrong.code, wrong.out]).toEqual([2, '']);
    expect(wrong.error).toContain('family');
    expect((await verdict('distribution')).error).toContain('Ask one question');
  });

  it('takes the only measurement column by default, and decimal commas', async () => {
    const { out } = await verdict('describe', file('kiln;thickness (mm)\nnorth;7,91\nsouth;8,09\n'));
    expect(JSON.parse(out).result).toMatchObject({ n: 2, mean: 8, unit: 'mm' });
  });

  it('splits a column by labels, and puts several side by side', async () => {
    const split = JSON.parse((await verdict('histogram', DEMO, '--column', 'thickness', '--split', 'kiln')).out);
    expect(split.request).toMatchObject({ column: 'thickness', split: 'kiln' });
    expect(split.method).toContain(
      'Histogram of thickness by kiln, bins: automatic, bin width from the rule, not rounded, starting at',
    );
    const counted = split.result.parts.map(({ counts }: { counts: number[] }) => counts.reduce((a, b) => a + b, 0));
    expect(counted[0] + counted[1]).toBe(48);
    const beside = JSON.parse((await verdict('box', DEMO, '--column', 'thickness', '--column', 'pinholes')).out);
    expect(beside.result.parts.map(({ name, n }: { name: string; n: number }) => [name, n])).toEqual([
      ['thickness', 48],
      ['pinholes', 48],
    ]);
    expect((await verdict('box', DEMO, '--column', 'thickness', '--split', 'oven')).error).toContain(
      'There is no column “oven”',
    );
    const both = await verdict('box', DEMO, '--column', 'thickness', '--column', 'pinholes', '--split', 'kiln');
    expect(both.error).toContain('--split takes exactly one --column');
  });

  it('counts the proportions within limits, and refuses limits that are none', async () => {
    const within = (options: string) => verdict('shares', DEMO, '--column', 'thickness', '--options', options);
    const { result } = JSON.parse((await within('{"of":"limits","lower":7.9,"upper":8.1}')).out);
    const [stretch] = result.parts[0].stretches;
    expect(stretch.below + stretch.inside + stretch.above).toBe(48);
    const refused = await within('{"of":"limits","lower":8.1,"upper":7.9}');
    expect([refused.code, refused.error]).toEqual([2, 'upper: The upper limit 7.9 is below the lower limit 8.1.\n']);
  });

  it('refuses a setting without effect beside another, names both, and runs a kept request as it is', async () => {
    const plot = (options: object) =>
      verdict('probability-plot', DEMO, '--column', 'thickness', '--options', JSON.stringify(options));
    const { code, error } = await plot({ band: 'none', confidence: 0.9 });
    expect([code, error]).toEqual([
      2,
      '--options: confidence has no effect where band is “none”; here band is “none”. Remove one of the two.\n',
    ]);
    expect((await plot({ band: 'none', together: 'one' })).code).toBe(0);
    const kept = JSON.parse((await plot({ band: 'none' })).out) as { request: object };
    expect((await plot({ ...kept.request, confidence: 0.9 })).code).toBe(0);
  });

  it('says that a result is not available, and why, with exit code 0', async () => {
    const { code, out } = await verdict('normality', file('x\n8.01\n8.02\n'), '--column', 'x');
    expect(code).toBe(0);
    expect(JSON.parse(out).result).toMatchObject({ available: false, reason: expect.stringContaining('at least 3') });
  });

  it.each([
    [['normality'], 'Usage: verdict <analysis> <file.csv>'],
    [['guess', DEMO], 'There is no analysis “guess”. There are: describe'],
    [['normality', DEMO, '--column', 'depth'], 'There is no column “depth”. There are: tile, thickness'],
    [['normality', '/no/such/file.csv'], '/no/such/file.csv cannot be read: the file does not exist.'],
    [['normality', DEMO, '--column', 'thickness', '--options', 'alpha=1'], '--options takes a JSON object'],
    [
      ['normality', DEMO, '--column', 'thickness', '--options', '{"alpha":5}'],
      'alpha: The significance level must lie between 0 and 1; 0.05 means 5 %.\n',
    ],
    [['normality', DEMO, '--nonsense'], "Unknown option '--nonsense'"],
  ])('%o: one line on standard error and exit code 2', async (args, said) => {
    const { code, out, error } = await verdict(...args);
    expect([code, out]).toEqual([2, '']);
    expect(error).toContain(said);
    expect(error.trimEnd()).not.toContain('\n');
  });

  it('asks which column where several could be meant, and refuses an empty file', async () => {
    expect((await verdict('describe', file('a,b\n1.5,2.5\n3.5,4.5\n'))).error).toContain(
      'State the column with --column. There are: a, b.',
    );
    expect((await verdict('describe', file(''))).error).toContain('The text is empty or has only column');
  });

  it('lists the analyses with --help', async () => {
    const { code, out } = await verdict('--help');
    expect(code).toBe(0);
    for (const id of ['describe', 'probability-plot', 'normality']) expect(out).toContain(id);
  });
});

/** A study with one change, and its chain. */
function studyFile(): StudyFile {
  const at = '2026-12-01T08:00:00.000Z';
  const change = linkAfter(
    { entries: 0, head: null },
    {
      ...{ revision: 1, token: 'token-one', kind: 'change-study', text: 'name', reason: null, who: 'bench 1', at },
      ...{ undoes: null, placeColumn: null, placeRow: null, cells: null },
      ...{ detail: { kind: 'change-study', name: 'week 46' }, inverse: { kind: 'change-study', name: '' } },
    },
  );
  return {
    ...{ format: 'verdict study', version: 2, app: '0.1.0', savedAt: at, columns: [], setAside: [], leftIn: [] },
    ...{ changes: [change], log: [], evidence: [], verdicts: [], looks: [] },
    study: {
      ...{ id: 'study-one', name: 'week 46', question: '', state: 'open', asks: null, tags: [], alpha: 0.05 },
      ...{ quantileType: 7, subject: null, revision: 1, rowCount: 0 },
    },
  };
}

describe('audit', () => {
  it('says that a study file agrees with its record, and where its chain ends', async () => {
    const made = studyFile();
    const { code, out } = await verdict('audit', file(JSON.stringify(made)));
    expect([code, out]).toEqual([0, `verified      week 46: entries 1, head ${made.changes[0]!.hash}\n`]);
  });

  it('says what does not agree, with exit code 1', async () => {
    const altered = studyFile();
    altered.changes[0]!.who = 'somebody';
    const { code, out } = await verdict('audit', file(JSON.stringify(altered)));
    expect([code, out]).toEqual([1, 'NOT VERIFIED  week 46\n              entry 1 (change 1) was altered.\n']);
  });

  it.each([
    [['audit'], 'Usage: verdict audit <study file>'],
    [['audit', DEMO], 'is not a study file'],
    [['audit', '/no/such/file'], 'the file does not exist'],
    [['audit', '--all'], 'Verdict is not running. Start it with npm start'],
  ])('%o: one line on standard error and exit code 2', async (args, said) => {
    const { code, error } = await verdict(...args);
    expect(code).toBe(2);
    expect(error).toContain(said);
  });
});

describe('the demo file', () => {
  it('is what its seeded generator writes', () => {
    expect(readFileSync(DEMO, 'utf8')).toBe(tileThickness());
  });
});
