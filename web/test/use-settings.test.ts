import { describeAnalysis, probabilityPlotAnalysis } from '@verdict/core/analyses';
import type { AnyAnalysis, SentencePart } from '@verdict/core/road';
import { createApp, defineComponent, h, nextTick } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { describe, expect, it } from 'vitest';
import { useSettings } from '../src/workbench/run/use-settings.js';

/** The composable inside a component of an application that is never mounted to a page: only its setup runs. */
async function at(
  address: string,
  prefix = 'plot',
  method: AnyAnalysis['method'] = (probabilityPlotAnalysis as unknown as AnyAnalysis).method,
  texts: readonly string[] = [],
) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/fit', component: { render: () => null } }],
  });
  await router.push(address);
  let found!: ReturnType<typeof useSettings>;
  const app = createApp(defineComponent({ setup: () => () => h('div') }));
  app.use(router);
  app.runWithContext(() => (found = useSettings(prefix, method as readonly SentencePart[], texts)));
  return { router, ...found };
}

describe('settings in the address', () => {
  it('are read with their types', async () => {
    const { settings } = await at('/fit?plot.positions=blom&plot.confidence=0.9&plot.replicates=999');
    expect(settings.value).toEqual({ positions: 'blom', confidence: 0.9, replicates: 999 });
  });

  it('that no field would take are passed over, as are those of another analysis', async () => {
    const address =
      '/fit?plot.positions=guess&plot.confidence=9.5&plot.replicates=12.5&plot.seed=&test.seed=5&plot.band=none';
    expect((await at(address)).settings.value).toEqual({ band: 'none' });
  });

  it('are written without losing the others', async () => {
    const { router, set, settings } = await at('/fit?test.seed=5');
    set('confidence', 0.99);
    await new Promise((resolve) => router.afterEach(resolve));
    await nextTick();
    expect(router.currentRoute.value.query).toEqual({ 'test.seed': '5', 'plot.confidence': '0.99' });
    expect(settings.value).toEqual({ confidence: 0.99 });
  });

  it('stay the same object while another part of the address changes, so that nothing runs again', async () => {
    const { router, settings } = await at('/fit?plot.positions=blom');
    const before = settings.value;
    await router.push('/fit?plot.positions=blom&test.seed=9');
    expect(settings.value).toBe(before);
  });

  it('that are tried out hold at once, stay out of the address, and go there together with what is set', async () => {
    const { router, settings, tryOut, setAll } = await at('/fit?plot.positions=blom');
    tryOut({ confidence: 0.9 });
    expect(settings.value).toEqual({ positions: 'blom', confidence: 0.9 });
    expect(router.currentRoute.value.query).toEqual({ 'plot.positions': 'blom' });
    tryOut({ confidence: 0.8, positions: undefined });
    expect(settings.value).toEqual({ confidence: 0.8 });
    setAll({ seed: 7 });
    await new Promise((resolve) => router.afterEach(resolve));
    await nextTick();
    expect(router.currentRoute.value.query).toEqual({ 'plot.confidence': '0.8', 'plot.seed': '7' });
    expect(settings.value).toEqual({ confidence: 0.8, seed: 7 });
  });

  it('leave the address when they are emptied, and hold lists and titles too', async () => {
    const { router, settings, set } = await at(
      '/fit?d.percentiles=5 95&d.title=Week 46&d.decimals=3',
      'd',
      (describeAnalysis as unknown as AnyAnalysis).method,
      ['title'],
    );
    expect(settings.value).toEqual({ percentiles: [5, 95], decimals: 3, title: 'Week 46' });
    set('decimals', undefined);
    await new Promise((resolve) => router.afterEach(resolve));
    await nextTick();
    expect(settings.value).toEqual({ percentiles: [5, 95], title: 'Week 46' });
    expect(router.currentRoute.value.query).not.toHaveProperty(['d.decimals']);
  });
});
