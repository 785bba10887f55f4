import { ANALYSES } from '@verdict/core/analyses';
import { describe, expect, it } from 'vitest';
import { STAGES } from '../src/stages/stages.js';
import { stageOf } from '../src/workbench/frame/stage.js';

describe('the stages', () => {
  it('have each analysis in one of them, known without loading it', () => {
    expect(ANALYSES.filter(({ id }) => !stageOf(STAGES, id)).map(({ id }) => id)).toEqual([]);
    expect(stageOf(STAGES, 'describe')?.name).toBe('shape');
    expect(stageOf(STAGES, 'rnus')).toBeUndefined();
  });

  it('draw results of their own analyses, each in one way', async () => {
    const drawn = await Promise.all(
      STAGES.map(async (stage) => ((await stage.drawings?.()) ?? []).map(({ analysis }) => ({ stage, analysis }))),
    );
    const all = drawn.flat();
    expect(all.filter(({ stage, analysis }) => stageOf(STAGES, analysis) !== stage)).toEqual([]);
    expect(new Set(all.map(({ analysis }) => analysis)).size).toBe(all.length);
    expect(all.length).toBeGreaterThan(30);
    // Leaves are text: a kept display has no picture that could fail.
    expect(all.some(({ analysis }) => analysis === 'stem-and-leaf')).toBe(false);
  });
});
