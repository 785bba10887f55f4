import type { Evidence } from '@verdict/contract';
import { computed, inject, shallowRef, watch, type Ref } from 'vue';
import { useStudy } from '../../stores/study.js';
import { allStages, type DrawKept, type KeptPicture } from '../../workbench/stage.js';

/** The last picture that each stage has among the evidence, drawn with the stage's own hand, which is fetched when it is needed. */
export function useKeptPictures(shown: Ref<readonly Evidence[]>) {
  const store = useStudy();
  const stages = inject(allStages, []);
  const hands = shallowRef<Record<string, DrawKept>>({});

  /** A result that came out differently on the server is not drawn as if it were one. */
  const last = computed(() =>
    stages.flatMap(({ name, draws }) => {
      const own = shown.value.filter(
        ({ analysis, recomputed }) => draws?.analyses.includes(analysis) && recomputed?.same !== false,
      );
      return own.length && draws ? [{ name, draws, item: own.at(-1)! }] : [];
    }),
  );
  watch(
    last,
    (drawn) => {
      for (const { name, draws } of drawn) {
        if (name in hands.value) continue;
        void draws.load().then((hand) => (hands.value = { ...hands.value, [name]: hand }));
      }
    },
    { immediate: true },
  );

  const pictures = computed(() =>
    last.value.flatMap(({ name, item }) => {
      const hand = hands.value[name];
      if (!hand) return [];
      const bounds = item.column === null ? null : store.columnById(item.column);
      // Drawn where it stands: a result that cannot be drawn takes nothing else of the sheet with it.
      const draw = (): KeptPicture => {
        const picture = hand(item, bounds ?? null);
        if (!picture) throw new Error('This result has no picture.');
        return picture;
      };
      return [{ item, draw }];
    }),
  );
  return { pictures };
}
