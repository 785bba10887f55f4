import { describeAnalysis } from '@verdict/core/analyses';
import { withReading, type Sample } from '@verdict/core/readings';
import { computed, ref, toRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Titles } from '../../charts/value-axis.js';
import { useStudy } from '../../stores/study.js';
import { unchanged } from '../../workbench/run/unchanged.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useParts } from '../../workbench/parts/use-parts.js';
import { useRun } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import { HISTOGRAM, PICTURES } from './pictures.js';
import { useShares } from './use-shares.js';

/** What Shape runs: the picture that is looked at, the figures, the shares; and a reading that is moved for a moment. */
export function useShape() {
  const store = useStudy();
  const route = useRoute();
  const place = useAddress();
  const column = toRef(store, 'subject');
  const parts = useParts();
  parts.resume();
  const panel = ref<'figures' | 'shares' | 'what-if'>('figures');

  /** The readings as they are stored, and as they would be with one of them moved. */
  const stored = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.parts.value) : null));
  const moved = ref<{ row: number; value: number } | null>(null);
  const sample = computed<Sample | null>(() =>
    stored.value && moved.value ? withReading(stored.value, moved.value.row, moved.value.value) : stored.value,
  );
  watch(stored, () => (moved.value = null));

  const asked = () => (column.value ? { column: column.value.name, ...parts.asked.value } : null);
  /** One definition of quartiles for all that the study shows; it stands with the study, not in the address. */
  const figured = () => {
    const { study } = store;
    return study && column.value && { ...asked(), quantileType: study.quantileType, alpha: study.alpha };
  };

  const picture = computed(() => PICTURES.find(({ id }) => id === route.query.picture) ?? HISTOGRAM);
  /** A run for each picture, of which only the one that is looked at is worked out. */
  const runs = new Map(
    PICTURES.map((one) => [
      one.id,
      one.run(sample, () => {
        const { study } = store;
        const own = asked();
        return picture.value.id === one.id && study && own ? { asked: own, study } : null;
      }),
    ]),
  );
  const show = (id: string) => void place.change({ picture: id });
  const current = computed(() => runs.get(picture.value.id)!.run);
  const shown = computed(() => runs.get(picture.value.id)!.shown.value);
  /** Titles alone, the same object while they are the same: another setting does not draw the old result anew. */
  const titles = unchanged<Titles>(() => {
    const { title, valueTitle, heightTitle } = current.value.address.settings.value as Titles;
    return { title, valueTitle, heightTitle };
  });

  const elsewhere = ['quantileType'];
  const described = useRun(describeAnalysis, sample, { fixed: figured, elsewhere });
  const before = useRun(describeAnalysis, stored, {
    fixed: () => (moved.value ? figured() : null),
    elsewhere,
  });
  const figures = described.result;

  const wantsShares = () => panel.value === 'shares';
  const shares = useShares(sample, { column, asked, figures, wanted: wantsShares });

  const stage = useStage({
    runs: () => [described, current.value, ...(wantsShares() ? [shares.run] : [])],
    kept: () => [current.value, described, ...(wantsShares() ? [shares.run] : [])],
    // Nothing of a reading that is moved is stored.
    about: () =>
      column.value && stored.value && !moved.value
        ? { column: column.value.id, parts: parts.parts.value, sample: stored.value }
        : null,
  });

  return {
    ...{ column, parts, panel, stored, sample, moved, stage },
    ...{ picture, show, current, shown, titles, address: computed(() => current.value.address) },
    ...{ described, figures, figuresBefore: before.result, shares },
    ...{ sharesRequest: shares.run.request, sharesAddress: shares.run.address },
  };
}
