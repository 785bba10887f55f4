import { advance, type BoxResult, type HistogramResult, type SharesRequest } from '@verdict/core/analyses';
import { withReading, type Sample } from '@verdict/core/readings';
import { samplesBeside } from '@verdict/core/table';
import { createApp, defineComponent, h, nextTick, computed, ref, shallowRef } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { describe, expect, it } from 'vitest';
import {
  BOX,
  DOTS,
  HISTOGRAM,
  IN_ORDER,
  STEMS,
  STEPS,
  type ShapePicture,
  type Shown,
} from '../src/stages/shape/pictures.js';
import { useChosen } from '../src/stages/shape/use-chosen.js';
import { useDragging } from '../src/stages/shape/use-dragging.js';
import type { useShape } from '../src/stages/shape/use-shape.js';

type Shape = ReturnType<typeof useShape>;

function sampleOf(values: number[], resolution: number | null = 0.1, name = 'thickness'): Sample {
  const none = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  const rows = Int32Array.from(values, (_, i) => i + 1);
  return { name, unit: 'mm', values: Float64Array.from(values), rows, resolution, ...none };
}
const READINGS = [7.8, 7.9, 8, 8, 8.1, 8.1, 8.1, 8.2, 8.4, 9];

function shownOf(picture: ShapePicture, sample: Sample, request: object = {}): Shown {
  const stage = advance(picture.id, { column: sample.name, ...request }, sample, []);
  return (picture as unknown as { shown: (result: unknown) => Shown }).shown((stage as { result: unknown }).result);
}

/** The parts of the stage that are dragged and chosen in, without the runs behind them; what is tried out and set is written down. */
function stage(sample: Sample, picture = shownOf(HISTOGRAM, sample, { rule: 'width', width: 0.2 })) {
  const written: [string, object][] = [];
  const address = (name: string) => ({
    tryOut: (values: object) => void written.push([`${name} tried`, values]),
    setAll: (values: object) => void written.push([`${name} set`, values]),
  });
  const moved = ref<{ row: number; value: number } | null>(null);
  const request = shallowRef<Partial<SharesRequest> | null>(null);
  const shape = {
    ...{ moved, panel: ref('figures'), sample: shallowRef(sample), shown: shallowRef<Shown | null>(picture) },
    ...{ figures: shallowRef({ min: Math.min(...sample.values), max: Math.max(...sample.values) }) },
    ...{ sharesRequest: request, sharesAddress: address('shares'), address: computed(() => address('bins')) },
    ...{ column: shallowRef({ id: 'thick-01' }), parts: { beside: ref<unknown[]>([]) } },
  };
  return { shape: shape as unknown as Shape, written, moved, request, bare: shape };
}

describe('dragging over the picture', () => {
  it('moves bins on the grid of the readings, and writes them down once they are let go', () => {
    const { shape, written } = stage(sampleOf(READINGS));
    const { drag, done } = useDragging(shape);
    drag('bin-width', 8.27);
    expect(written.at(-1)).toEqual(['bins tried', { rule: 'width', width: 0.5, start: 7.75 }]);
    drag('bin-width', 7.7);
    expect(written.at(-1)![1]).toMatchObject({ width: 0.1 });
    drag('bin-start', 7.68);
    expect(written.at(-1)).toEqual(['bins tried', { rule: 'width', width: 0.2, start: 7.65 }]);
    done('bin-width');
    expect(written.at(-1)).toEqual(['bins set', {}]);
  });

  it('moves bins of readings without a known step to about a two-hundredth', () => {
    const { shape, written } = stage(sampleOf([0, 0.1234, 5.5, 10], null));
    useDragging(shape).drag('bin-width', 3.333_333);
    const { width } = written.at(-1)![1] as { width: number };
    expect(Math.abs(width - 3.333)).toBeLessThan(0.05);
    expect(String(width).length).toBeLessThan(7);
  });

  it('shows limits of one’s own only, and lets neither pass the other', () => {
    const { shape, written, request, bare } = stage(sampleOf(READINGS));
    const { lines, drag, done } = useDragging(shape);
    request.value = { of: 'limits', lower: 7.9, upper: 8.2 };
    expect(lines.value).toEqual([]);
    bare.panel.value = 'shares';
    expect(lines.value.map(({ id, at, label }) => [id, at, label])).toEqual([
      ['lower', 7.9, 'Lower limit'],
      ['upper', 8.2, 'Upper limit'],
    ]);
    drag('lower', 8.04);
    expect(written.at(-1)).toEqual(['shares tried', { lower: 8, upper: 8.2 }]);
    drag('lower', 8.6);
    expect(written).toHaveLength(1);
    request.value = { of: 'limits', upper: 8.2 };
    expect(lines.value.map(({ id }) => id)).toEqual(['upper']);
    drag('upper', 5);
    done('upper');
    expect(written.slice(1)).toEqual([
      ['shares tried', { lower: undefined, upper: 5 }],
      ['shares set', {}],
    ]);
    request.value = { of: 'specification', lower: 7.5, upper: 8.5 };
    expect(lines.value).toEqual([]);
  });

  it('moves the reading that is tried out, and nothing else', () => {
    const { shape, written, moved } = stage(sampleOf(READINGS));
    const { lines, drag } = useDragging(shape);
    drag('what-if', 8.5);
    expect(moved.value).toBeNull();
    moved.value = { row: 10, value: 9 };
    expect(lines.value[0]).toMatchObject({ id: 'what-if', at: 9, words: 'row 10 at 9' });
    drag('what-if', 8.5432);
    expect(moved.value).toEqual({ row: 10, value: 8.5 });
    expect(written).toEqual([]);
  });

  it('does nothing to bins where another picture is shown', () => {
    const sample = sampleOf(READINGS);
    const { shape, written } = stage(sample, shownOf(BOX, sample));
    useDragging(shape).drag('bin-width', 8);
    expect(written).toEqual([]);
  });
});

async function chosenIn(shape: Shape) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/shape', name: 'shape', component: { render: () => null } },
      { path: '/readings', name: 'readings', component: { render: () => null } },
    ],
  });
  await router.push('/shape');
  const app = createApp(defineComponent({ setup: () => () => h('div') }));
  app.use(router);
  return { router, ...app.runWithContext(() => useChosen(shape)) };
}

describe('choosing bars', () => {
  it('chooses their readings, each once, and shows their rows in the table', async () => {
    const { shape } = stage(sampleOf(READINGS));
    const { chosen, readings, rows, canChoose, showInTable, router } = await chosenIn(shape);
    expect(readings.value).toEqual([]);
    chosen.value = new Set([0, 6]);
    // Bins of 0.2 from 7.75: the first holds 7.8 and 7.9, the last 9.
    expect(readings.value.map((i) => READINGS[i])).toEqual([7.8, 7.9, 9]);
    expect([rows(), canChoose.value]).toEqual([[1, 2, 10], true]);
    showInTable();
    await new Promise((resolve) => router.afterEach(resolve));
    expect(JSON.parse(String(router.currentRoute.value.query.arranged))).toEqual({
      sort: [],
      only: [{ kind: 'rows', rows: [1, 2, 10] }],
    });
  });

  it('is over when the bins are others, and not offered for several columns', async () => {
    const sample = sampleOf(READINGS);
    const { shape, bare } = stage(sample);
    const { chosen, canChoose } = await chosenIn(shape);
    chosen.value = new Set([1]);
    bare.parts.beside.value = [{}];
    expect(canChoose.value).toBe(false);
    bare.parts.beside.value = [];
    bare.shown.value = shownOf(HISTOGRAM, sample, { rule: 'width', width: 0.4 });
    await nextTick();
    expect(chosen.value.size).toBe(0);
  });

  it('chooses readings of the groups that are shown only', async () => {
    const sample = sampleOf(READINGS);
    const part = (name: string, rows: number[]) => ({
      ...sampleOf(rows.map((row) => READINGS[row - 1]!)),
      ...{ name, rows: Int32Array.from(rows) },
    });
    // Rows 3 and 4 have no label.
    const groups = { by: 'kiln', samples: [part('north', [1, 2, 5]), part('south', [6, 7, 8, 9, 10])], without: 2 };
    const split = { ...sample, groups };
    const { shape } = stage(split, shownOf(HISTOGRAM, split, { split: 'kiln', rule: 'width', width: 2 }));
    const { chosen, rows } = await chosenIn(shape);
    chosen.value = new Set([0]);
    expect(rows()).toEqual([1, 2, 5, 6, 7, 8, 9, 10]);
  });

  it('names many readings by their range, where their bars are neighbours', async () => {
    const many = Array.from({ length: 4_000 }, (_, i) => 8 + (i % 40) / 10);
    const { shape } = stage(sampleOf(many), shownOf(HISTOGRAM, sampleOf(many), { rule: 'width', width: 1 }));
    const { chosen, canShow, showInTable, router } = await chosenIn(shape);
    chosen.value = new Set([0, 2]);
    expect(canShow.value).toBe(false);
    chosen.value = new Set([0, 1]);
    expect(canShow.value).toBe(true);
    showInTable();
    await new Promise((resolve) => router.afterEach(resolve));
    const [filter] = JSON.parse(String(router.currentRoute.value.query.arranged)).only;
    expect(filter).toEqual({ kind: 'range', column: 'thick-01', from: 8, to: 9.9 });
  });
});

describe('the table behind a picture', () => {
  const sample = sampleOf([...READINGS, 12]);
  it('has a line for each bin, and a count for each part', () => {
    const shown = shownOf(HISTOGRAM, sample, { rule: 'width', width: 1 });
    const result = shown.result as HistogramResult;
    const [head, ...bins] = shown.rows();
    expect(head).toEqual(['from', 'to below', 'readings']);
    expect(bins.map((row) => row[0])).toEqual(result.edges.slice(0, -1));
    expect(bins.reduce((sum, row) => sum + Number(row[2]), 0)).toBe(11);
    const both = samplesBeside([sample, sampleOf([8, 9], 0.1, 'width')]);
    const split = shownOf(HISTOGRAM, both, { beside: ['width'] }).rows();
    expect(split[0]).toEqual(['from', 'to below', 'thickness', 'width']);
  });

  it('has every reading of the others', () => {
    const rows = (picture: ShapePicture) => shownOf(picture, sample).rows().slice(1);
    expect(rows(IN_ORDER)).toHaveLength(11);
    expect(rows(IN_ORDER)[10]).toEqual(['thickness', 11, 12]);
    expect(rows(STEPS).at(-1)).toEqual(['thickness', 12, 11, 1]);
    expect(rows(DOTS).reduce((sum, row) => sum + Number(row[2]), 0)).toBe(11);
    expect(
      rows(STEMS)
        .map((row) => row[3])
        .join(''),
    ).toHaveLength(11);
    expect(rows(BOX)[0]!.slice(0, 2)).toEqual(['thickness', 11]);
    expect(rows(BOX)[0]!.at(-1)).toBe('row 11: 12; row 10: 9');
  });
});

describe('the pictures', () => {
  it('know along which axis the readings run, what they are called, and that leaves are text', () => {
    const sample = sampleOf(READINGS);
    const setting = {
      ...{ bounds: { lowerLimit: null, target: null, upperLimit: null }, titles: {}, lines: [], hold: null },
    };
    expect(shownOf(BOX, sample).along).toBe('x');
    expect(shownOf(BOX, sample, { direction: 'upright' }).along).toBe('y');
    expect(shownOf(IN_ORDER, sample).along).toBe('y');
    expect(DOTS.title('thickness by kiln')).toBe('Dot plot of thickness by kiln');
    expect(shownOf(STEMS, sample).panels(setting, new Set())).toBeNull();
    expect(shownOf(DOTS, sample).panels(setting, new Set())!.panels).toHaveLength(1);
  });

  it('follow a reading that is moved, in its group too, and leave the stored ones alone', () => {
    const sample = sampleOf(READINGS);
    const groups = { by: 'kiln', samples: [sampleOf(READINGS.slice(0, 5))], without: 5 };
    const moved = withReading({ ...sample, groups }, 2, 11);
    expect([moved.values[1], moved.groups!.samples[0]!.values[1], sample.values[1]]).toEqual([11, 11, 7.9]);
    expect(withReading(sample, 99, 11).values).toBe(sample.values);
    expect((shownOf(BOX, moved).result as BoxResult).parts[0]!.outside[0]).toMatchObject({
      row: 2,
      value: 11,
    });
  });
});
