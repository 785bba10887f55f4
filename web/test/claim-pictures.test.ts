import { inThisThread, type ClaimDrawsResult, type ClaimResult, type ToleranceResult } from '@verdict/core/analyses';
import { NO_READINGS, type Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';

import { describe, expect, it } from 'vitest';
import type { Mark } from '../src/charts/marks.js';
import { isSheet, type Drawn, type Panels } from '../src/charts/picture.js';
import { drawnPanels, foundPanels, lawPanels, tolerancePanels } from '../src/charts/pictures/claims.js';
import { DRAWINGS } from '../src/stages/claims/drawings.js';
import { drawnAgain } from './kept.js';

const sampleOf = (values: number[], name = 'thickness'): Sample => ({
  ...NO_READINGS,
  ...{
    name,
    unit: 'mm',
    values: Float64Array.from(values),
    rows: Int32Array.from(values, (_, i) => i + 1),
    resolution: 0.01,
  },
});
const READINGS = [7.8, 7.92, 7.94, 7.97, 8.19, 8.1, 7.96, 8.17, 8, 7.95, 8.16, 8.07];
const run = <R = ClaimResult>(id: string, request: object, sample: Sample = NO_READINGS) =>
  drive(inThisThread, { id, request, sample }) as Promise<R>;
const mean = (more: object = {}) => run('mean-claim', { column: 'thickness', claimed: 8, ...more }, sampleOf(READINGS));
const marksOf = (panels: Panels | null) => panels!.panels[0]!.marks;
const ofKind = <K extends Mark['kind']>(marks: readonly Mark[], kind: K) =>
  marks.filter((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind);

describe('the null distribution of a claim', () => {
  it('has both tails shaded, the statistic labelled and the critical values drawn', async () => {
    const panels = lawPanels(await mean());
    const marks = marksOf(panels);
    const areas = ofKind(marks, 'area');
    expect(areas).toHaveLength(2);
    const rules = ofKind(marks, 'rule');
    expect(rules).toHaveLength(3);
    const statistic = rules.at(-1)!;
    expect(statistic.words).toMatch(/^t = 0\.\d+$/);
    // A tail begins at the statistic, and ends at the edge of the picture.
    expect(Math.min(...areas[1]!.x)).toBeCloseTo(statistic.at, 12);
    expect(Math.max(...areas[1]!.x)).toBe(panels!.x.to);
    expect(areas.every(({ x, y }) => x.length === y.length && y.every(Number.isFinite))).toBe(true);
    expect(panels!.legend!.map(({ words }) => words)).toEqual([
      't distribution with 11 degrees of freedom, if the claim is true',
      expect.stringMatching(/^p = 0\.\d+$/),
      'critical values at level 0.05',
    ]);
  });

  it('of one direction has one tail', async () => {
    const [area, ...more] = ofKind(marksOf(lawPanels(await mean({ alternative: 'less' }))), 'area');
    expect(more).toEqual([]);
    expect(Math.min(...area!.x)).toBeLessThan(-3);
  });

  it('of counts has a column for each, those counted into p filled, each with its probability', async () => {
    const share = await run('share-claim', { figures: { count: 4, n: 48 }, claimed: 0.02, alternative: 'greater' });
    const panels = lawPanels(share);
    const [columns] = ofKind(marksOf(panels), 'columns');
    expect(columns!.x.filter((_, i) => columns!.filled[i])[0]).toBe(4);
    expect(panels!.hits[4]!.words).toContain('4: probability 0.0128, included in p');
    expect(lawPanels(await run('share-claim', { figures: { count: 0, n: 48 }, claimed: 0 }))).toBeNull();
  });

  it('of a thousand million counts is a curve', async () => {
    const panels = lawPanels(await run('share-claim', { figures: { count: 500_050_000, n: 1e9 }, claimed: 0.5 }));
    expect(ofKind(marksOf(panels), 'line')[0]!.x.length).toBeLessThan(300);
    expect(ofKind(marksOf(panels), 'area').length).toBeGreaterThan(0);
  });
});

describe('what was found', () => {
  it('of one sample stands compared with the claim, with what is close enough', async () => {
    const panels = foundPanels(await mean({ margin: 0.1 }), 'thickness');
    const marks = marksOf(panels);
    expect(ofKind(marks, 'rule')[0]).toMatchObject({ at: 8, words: 'claimed 8.000\u00a0mm' });
    expect(ofKind(marks, 'area')[0]!.x.slice(0, 2)).toEqual([7.9, 8.1]);
    expect(ofKind(marks, 'points')[0]!.x).toEqual([...READINGS].sort((a, b) => a - b));
    expect(panels!.x.title).toBe('thickness, mm');
    expect(panels!.hits[0]!.words).toMatch(/^thickness, n = 12: mean 8\.019\smm, 7\.9\d+ to 8\.\d+\smm$/u);
  });

  it('of groups has one below the other, the first on top', async () => {
    const halves = [sampleOf(READINGS.slice(0, 6), 'north'), sampleOf(READINGS.slice(6), 'south')];
    const sample: Sample = { ...sampleOf(READINGS), groups: { by: 'kiln', samples: halves, without: 0 } };
    const panels = foundPanels(await run('two-means', { column: 'thickness', split: 'kiln' }, sample), 'thickness');
    expect(panels!.y.ticks).toEqual([
      { at: 2, words: 'north' },
      { at: 1, words: 'south' },
    ]);
    expect(panels!.hits).toHaveLength(2);
    const spreads = foundPanels(
      await run('two-spreads', { column: 'thickness', split: 'kiln', method: 'f' }, sample),
      'thickness',
    );
    expect(spreads!.x.title).toBe('SD of thickness, mm');
  });

  it('of counts has bars with expected values across, the far ones in ochre, and their share of χ²', async () => {
    const panels = foundPanels(await run('counts-claim', { counts: { a: 40, b: 10, c: 22 } }), 'x');
    const bars = ofKind(marksOf(panels), 'rect');
    expect(bars.map(({ y }) => y[1])).toEqual([40, 10, 22]);
    expect(bars.map(({ fill }) => fill)).toEqual(['ochre', 'ochre', 'green']);
    expect(ofKind(marksOf(panels), 'line').map(({ y }) => y[0])).toEqual([24, 24, 24]);
    expect(panels!.hits[0]!.words).toBe('a: 40 observed, 24 expected, 56 % of χ²');
  });

  it('of a table is shown cell by cell, as a comparison of the groups', async () => {
    const panels = foundPanels(
      await run('table-claim', {
        table: [
          [12, 5],
          [3, 14],
        ],
        rowNames: ['early', 'late'],
        columnNames: ['chip', 'crack'],
      }),
      'x',
    );
    expect(panels!.x.ticks!.map(({ words }) => words)).toEqual(['chip', 'crack']);
    const bars = ofKind(marksOf(panels), 'rect');
    expect(bars).toHaveLength(4);
    // No bar lies on another.
    const sorted = bars.map(({ x }) => x).sort(([a], [b]) => a - b);
    sorted.slice(1).forEach(([from], i) => expect(from).toBeGreaterThan(sorted[i]![1]));
    expect(panels!.hits[2]!.words).toBe('late, chip: 3 observed, 7.5 expected, 28 % of χ²');
  });

  it('of tolerance limits has what is allowed drawn', async () => {
    const limits = await run<ToleranceResult>(
      'tolerance',
      { column: 'thickness', lower: 7.5, upper: 8.5 },
      sampleOf(READINGS),
    );
    const rules = ofKind(marksOf(tolerancePanels(limits)), 'rule');
    expect(rules.map(({ words }) => words)).toEqual(['lower specification limit 7.5', 'upper specification limit 8.5']);
  });
});

describe('samples drawn under the claim', () => {
  it('are a dot each, and as many in ochre as are counted', async () => {
    const claim = await mean();
    const drawn = await run<ClaimDrawsResult>('claim-draws', { model: claim.draws, beyond: claim.law!.beyond });
    const points = ofKind(marksOf(drawnPanels(claim, drawn)), 'points');
    const [plain, far] = points.map(({ x }) => x.length);
    expect(far).toBe(drawn.beyond);
    expect(plain! + far!).toBe(100);
  });
});

describe('a kept claim', () => {
  it('is drawn again, each by what it has', async () => {
    const kept = (analysis: string, request: object, result: unknown) =>
      drawnAgain(DRAWINGS, analysis, request, result);
    const drawn = (panels: Drawn) => !isSheet(panels) && panels.panels[0]!.marks.length > 0;
    const one = kept('mean-claim', { column: 'thickness' }, await mean())!;
    expect([one.title, drawn(one.panels)]).toEqual(['claim: the mean of thickness is 8.00\u00a0mm', true]);
    const limits = await run('tolerance', { column: 'thickness' }, sampleOf(READINGS));
    expect(kept('tolerance', { column: 'thickness' }, limits)!.title).toContain('tolerance interval of thickness');
  });
});
