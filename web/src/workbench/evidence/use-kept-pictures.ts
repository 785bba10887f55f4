import type { Evidence } from '@verdict/contract';
import { inject, shallowRef, watch, type Ref } from 'vue';
import { useStudy } from '../../stores/study.js';
import { allStages, stageOf, type Drawing, type KeptPicture } from '../frame/stage.js';

/** Draws kept results with the own hands of their stages, which are fetched when they are needed. */
export function useKeptPictures(shown: Ref<readonly Evidence[]>) {
  const store = useStudy();
  const stages = inject(allStages, []);
  const hands = shallowRef<readonly Drawing[]>([]);

  const asked = new Map<string, Promise<void>>();
  function fetchHands(items: readonly Evidence[]): Promise<unknown> {
    for (const { analysis } of items) {
      const stage = stageOf(stages, analysis);
      if (!stage?.drawings || asked.has(stage.name)) continue;
      const fetched = stage.drawings().then((own) => void (hands.value = [...hands.value, ...own]));
      asked.set(stage.name, fetched);
    }
    return Promise.all(asked.values());
  }
  watch(shown, (items) => void fetchHands(items), { immediate: true });

  /**
   * Draws a piece where it stands: a result that cannot be drawn takes nothing else with it. Null where it has no picture, where the hand is still on its way, and where
   * the result came out differently on the server: that is not drawn as if it were one.
   */
  function drawOf(item: Evidence): (() => KeptPicture) | null {
    const hand = hands.value.find(({ analysis }) => analysis === item.analysis);
    if (!hand || item.recomputed?.same === false) return null;
    return () => {
      const bounds = item.column === null ? null : store.columnById(item.column);
      const picture = hand.draw(item, bounds ?? null);
      if (!picture) throw new Error('This result has no picture.');
      return picture;
    };
  }
  return { drawOf, ready: () => fetchHands(shown.value) };
}
