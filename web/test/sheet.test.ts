import type { Evidence, Study, Verdict } from '@verdict/contract';
import { strFromU8, unzipSync } from 'fflate';
import { createSSRApp, h } from 'vue';
import { renderToString } from 'vue/server-renderer';
import { describe, expect, it } from 'vitest';
import SheetDocument from '../src/sheet/sheet-document.vue';
import { openWords, standingOf, STEPS } from '../src/path/questions.js';
import { withMark } from '../src/language/figures.js';
import { cautionsWithAnswers, inOrderOfWork, weighedWords } from '../src/sheet/pieces.js';
import { sheetOf, type SheetSource } from '../src/sheet/sheet-of.js';
import { isoTime, moment, withTimes, type SheetPictures } from '../src/sheet/sheet.js';
import { sheetDocx } from '../src/sheet/to-docx.js';
import { sheetJson } from '../src/sheet/to-json.js';
import { PATH, STAGES } from '../src/stages/stages.js';
import { stageOf } from '../src/workbench/frame/stage.js';

const AT = '2026-11-27T07:50:12.000Z';
const piece = (id: string, analysis: string, more: Partial<Evidence> = {}): Evidence => ({
  ...{ id, analysis, version: 1, appVersion: '0.1.0', column: 'c1', parts: null, request: { column: 'thickness' } },
  ...{ fingerprint: 'ab'.repeat(32), revision: 2, seed: 7, result: { notes: [] }, method: `${analysis} was done.` },
  ...{
    finding: [{ text: 'found ' }, { text: '8.02 mm', strong: true, code: 'figure' }],
    note: '',
    place: null,
    leftOut: false,
  },
  ...{ leads: false, answers: [], replaces: null, who: 'A', at: AT, recomputed: { same: true, at: AT }, ...more },
});

describe('the order of the sheet', () => {
  const rank = (analysis: string) => ['describe', 'normality', 'outliers'].indexOf(analysis);
  const ids = (items: readonly Evidence[]) => items.map(({ id }) => id).join('');

  it('is that of the work, whenever a piece was kept', () => {
    expect(ids(inOrderOfWork([piece('c', 'outliers'), piece('a', 'describe'), piece('b', 'normality')], rank))).toBe(
      'abc',
    );
  });

  it('is as it was arranged, and what comes later stands where it belongs among that', () => {
    const placed = [piece('x', 'outliers', { place: 0 }), piece('y', 'describe', { place: 1 })];
    expect(ids(inOrderOfWork([...placed, piece('n', 'normality')], rank))).toBe('xyn');
    expect(
      ids(
        inOrderOfWork(
          [piece('y', 'describe', { place: 0 }), piece('x', 'outliers', { place: 1 }), piece('n', 'normality')],
          rank,
        ),
      ),
    ).toBe('ynx');
  });
});

describe('what a sheet says', () => {
  it('of many tests: how many of them would fall below the level by chance', () => {
    expect(weighedWords({ results: 4, tests: 20 }, 2, 0.05)).toBe(
      '20 tests were viewed in 4 results; 2 of them are in this report. At significance level 0.05, about 1 of 20 would be below it by chance.',
    );
    expect(weighedWords({ results: 1, tests: 1 }, 1, 0.05)).toBe('One test was viewed, in 1 result.');
    expect(weighedWords({ results: 3, tests: 0 }, 0, 0.05)).toBe('');
  });

  it('of cautions: those that only reassure are none, and the same is not asked twice', () => {
    const notes = [
      { code: 'a', text: 'coarse' },
      { code: 'b', text: 'fine', quiet: true },
      { code: 'a', text: 'coarse' },
    ];
    const answers = [{ to: 'coarse', words: 'known', who: 'A', at: AT }];
    expect(cautionsWithAnswers({ result: { notes }, answers })).toEqual([{ text: 'coarse', answer: answers[0] }]);
    for (const result of [null, 'x', { notes: 'x' }, { notes: [null, 3, {}] }]) {
      expect(cautionsWithAnswers({ result, answers: [] })).toEqual([]);
    }
  });

  it('at which moments, written as each form writes them', () => {
    expect(withTimes(`kept ${moment(AT)} and {not a time}`, isoTime)).toBe(
      'kept 2026-11-27 07:50 UTC and {not a time}',
    );
  });
});

const verdict: Verdict = {
  ...{ id: 'v', decision: 'treat-as-family', family: 'Weibull', reason: 'a straight plot', leftOpen: 'one caution' },
  ...{ looked: null, who: 'A', at: AT, revision: 3, evidence: ['a'], reopened: null },
};
const column = {
  ...{
    id: 'c1',
    name: 'thickness',
    unit: 'mm',
    kind: 'measure',
    decimal: 'point',
    thousands: 'none',
    resolution: 0.01,
  },
  ...{ lowerLimit: 7.5, target: null, upperLimit: 8.5, claimedMean: null, claimedSd: null, levels: null },
  ...{ frequencies: null, derivation: null },
} as Study['columns'][number];
const study: Study = {
  ...{ id: 'study-1', name: 'week 46', question: '', state: 'ruled', asks: 'normal', tags: [], alpha: 0.05 },
  ...{ quantileType: 7, subject: 'c1', revision: 4, rowCount: 3, columns: [column], verdicts: [verdict] },
  setAside: [{ column: 'c1', row: 2, reason: 'caliper not closed', who: 'B', at: AT }],
  leftIn: [{ column: 'c1', row: 3, reason: 'checked', who: 'B', at: AT }],
  ...{ canUndo: null, canRedo: null, entries: 0, head: null, notVerified: null },
};
const source: SheetSource = {
  ...{ study, standing: verdict, stale: new Set(['a']), sample: null, weighed: 'One test.', notSeen: '' },
  onSheet: [
    piece('a', 'normality', { result: { notes: [{ code: 'x', text: 'coarse' }] }, note: 'second gauge', leads: true }),
  ],
  leftOut: [piece('b', 'describe')],
  cellOf: (_, row) => ['8.01', '9.87', '8.03'][row - 1]!,
  checked: { entries: 7, head: 'ab12', earlier: 0, faults: [], notVerified: null },
  appendix: { title: 'Readings', heads: ['row', '=thickness'], numeric: [false, true], rows: [['1', '8.01']] },
};

describe('a sheet', () => {
  const sheet = sheetOf(source);

  it('says where the record ends and whether the study agrees with it', () => {
    expect(sheet.recompute[0]).toBe('Record verified: 7 entries, head ab12.');
    const checked = { entries: 7, head: 'ab12', earlier: 3, faults: [], notVerified: null };
    expect(sheetOf({ ...source, checked }).recompute[0]).toContain('3 changes recorded before the chain began cannot');
    expect(sheetOf({ ...source, checked: null }).recompute[0]).toBe('The record is being checked.');
    const broken = sheetOf({ ...source, checked: { ...checked, notVerified: 'entry 7 was altered.' } });
    expect([broken.notVerified, broken.recompute[0]]).toEqual([
      'entry 7 was altered.',
      'Not verified. The study does not agree with its record: entry 7 was altered.',
    ]);
  });

  it('is complete: question, decision, readings with reasons, evidence, exclusions, how to reproduce it', () => {
    expect(sheet).toMatchObject({
      ...{ title: 'week 46', kicker: 'Verdict', question: 'May I treat it as normal?' },
      decision: { words: 'treat as Weibull', reason: 'a straight plot', leftOpen: 'one caution', revision: 3 },
      aside: [`row 2, 9.87: caliper not closed (B, {${AT}})`],
      leftIn: [`row 3, 8.03: checked (B, {${AT}})`],
      leftOut: [`Description of thickness (A, {${AT}})`],
    });
    expect(sheet.headline).toMatchObject({ of: '1 Normality test of thickness' });
    const [one] = sheet.pieces;
    expect(one).toMatchObject({ heading: 'Normality test of thickness', note: 'second gauge' });
    expect(one!.stale).toContain('The data changed since change 2; the result refers to the earlier data.');
    expect(one!.cautions).toEqual([{ text: 'coarse', answer: '' }]);
    expect(one!.provenance).toContain('normality version 1, Verdict 0.1.0, seed 7; readings at change 2');
    expect(sheet.recompute.join(' ')).toContain('ab'.repeat(32));
  });

  it('is a document in the open format: its words, a picture, and the readings', async () => {
    const png = { bytes: Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10), width: 660, height: 236, title: 'plot' };
    const blob = await sheetDocx(sheet, new Map([['a', png]]));
    const files = unzipSync(new Uint8Array(await blob.arrayBuffer()));
    const words = strFromU8(files['word/document.xml']!).replace(/<[^>]+>/g, ' ');
    for (const text of [
      'week 46',
      'treat as Weibull',
      'caliper not closed',
      'Not answered.',
      'second gauge',
      'Basis of the decision',
      '8.01',
    ])
      expect(words).toContain(text);
    expect(words).toContain('2026-11-27 07:50 UTC');
    expect(words).not.toContain('{2026');
    expect(Object.keys(files).some((name) => /^word\/media\/.*\.png$/.test(name))).toBe(true);
  });

  it('is a document that can be opened, whatever was typed into it', async () => {
    const odd = { ...source, study: { ...study, name: 'a < b & c\u0001\u000b', question: 'one\ntwo' } };
    const blob = await sheetDocx(sheetOf(odd), new Map());
    const xml = strFromU8(unzipSync(new Uint8Array(await blob.arrayBuffer()))['word/document.xml']!);
    expect(xml).toContain('a &lt; b &amp; c<');
    // eslint-disable-next-line no-control-regex -- these are meant
    expect(xml).not.toMatch(/[\u0000-\u0008\u000b]/);
    expect(xml).toMatch(/one<.*<w:br\/>.*two/);
  });

  it('says in its place that a picture cannot be drawn, and nothing where there is none', async () => {
    const written = async (pictures: SheetPictures) => {
      const props = { sheet, pictures, time: isoTime, figures: (text: string) => withMark(text, 'comma') };
      return renderToString(createSSRApp({ render: () => h(SheetDocument, props) }));
    };
    expect(await written(new Map([['a', null]]))).toContain('This kept result cannot be drawn.');
    expect(await written(new Map())).not.toContain('cannot be drawn');
    const picture = { title: 'Plot', svg: '<svg><text>8.02</text></svg>', width: 660, height: 236 };
    const page = await written(new Map([['a', picture]]));
    expect(page).toContain('<text>8,02</text>');
    expect(page).toContain('8,02 mm');
    expect(page).not.toContain('cannot be drawn');
  });

  it('is data: the words with plain moments, and every request and result in full', () => {
    const data = JSON.parse(sheetJson(sheet, study, source.onSheet)) as {
      format: string;
      sheet: { aside: string[] };
      evidence: Evidence[];
    };
    expect(data.format).toBe('verdict sheet');
    expect(data.sheet.aside[0]).toContain('2026-11-27 07:50 UTC');
    expect(data.evidence[0]).toMatchObject({ request: { column: 'thickness' }, fingerprint: 'ab'.repeat(32) });
  });
});

describe('the steps of a question', () => {
  it('lead to stages of the path, and are seen by what those stages keep', () => {
    for (const step of Object.values(STEPS).flat()) {
      expect(PATH.some(({ name }) => name === step.stage)).toBe(true);
      for (const analysis of step.by) expect(stageOf(STAGES, analysis), analysis).toBeDefined();
    }
  });

  it('say what is still open of this column, and count what needs no column', () => {
    const look = (analysis: string, column: string | null) => ({ digest: analysis, analysis, column, tests: 0 });
    const standing = standingOf('how-many', [look('plan', null), look('describe', 'c2')], 'c1');
    expect(openWords(standing)).toBe(
      'Not viewed: centre, spread and shape, power curves, simulated samples of that size.',
    );
    expect(openWords(standingOf('how-many', [], null).map((step) => ({ ...step, seen: true })))).toBe('');
  });
});
