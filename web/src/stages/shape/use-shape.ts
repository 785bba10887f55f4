import { describeAnalysis, sharesAnalysis, type DescribeResult, type SharesResult } from '@verdict/core/analyses';
import { withReading, type Sample } from '@verdict/core/readings';
import {
  isField,
  isUnavailable,
  type Analysis,
  type Note,
  type SentencePart,
  type Settings,
  type Unavailable,
} from '@verdict/core/road';
import { computed, ref, toRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { askedOf } from '../../composables/asked.js';
import { unchanged } from '../../composables/unchanged.js';
import { useAnalysis } from '../../composables/use-analysis.js';
import { useSettings } from '../../composables/use-settings.js';
import { useStudy } from '../../stores/study.js';
import { PICTURES, type PictureId, type Shown } from './pictures.js';
import type { Titles } from '../../charts/shape/value-axis.js';
import { useAddress } from '../../composables/use-address.js';
import { useParts } from '../../composables/use-parts.js';

const TITLES = ['title', 'valueTitle', 'heightTitle'];
type AnyResult = Shown['result'] | Unavailable;

/** The fields that stand in the address: the definition of quartiles stands with the study. */
const ofAddress = (method: readonly SentencePart[]) =>
  method.filter((part) => !isField(part) || part.field !== 'quantileType');

/** The runs behind the Shape stage: the picture that is looked at, the figures, the shares; and a reading that is moved for a moment. */
export function useShape() {
  const store = useStudy();
  const route = useRoute();
  const address = useAddress();
  const column = toRef(store, 'subject');
  const parts = useParts();
  parts.resume();

  const picture = computed<PictureId>(() => PICTURES.find(({ id }) => id === route.query.picture)?.id ?? 'histogram');
  const show = (id: PictureId) => void address.change({ picture: id });
  const panel = ref<'figures' | 'shares' | 'what-if'>('figures');

  /** The readings as they are stored, and as they would be with one of them moved. */
  const stored = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.parts.value) : null));
  const moved = ref<{ row: number; value: number } | null>(null);
  const sample = computed<Sample | null>(() =>
    stored.value && moved.value ? withReading(stored.value, moved.value.row, moved.value.value) : stored.value,
  );
  watch(stored, () => (moved.value = null));

  const fixed = computed(() => ({ column: column.value?.name, ...parts.asked.value }));
  /** One definition for all that the study shows; it stands with the study, not in the address. */
  const quartiles = computed(() => ({ quantileType: store.study!.quantileType }));
  const addresses = Object.fromEntries(
    PICTURES.map(({ id, analysis }) => [
      id,
      useSettings(id, ofAddress(analysis.method), id === 'stem-and-leaf' ? [] : TITLES),
    ]),
  ) as Record<PictureId, ReturnType<typeof useSettings>>;
  const runs = Object.fromEntries(
    PICTURES.map((one) => {
      const { id } = one;
      const analysis = one.analysis as unknown as Analysis<Settings>;
      const asked = computed(() => {
        if (!column.value || picture.value !== id) return null;
        const level = {
          ...(id === 'in-order' ? { alpha: store.study!.alpha } : {}),
          ...(id === 'box' ? quartiles.value : {}),
        };
        return askedOf(analysis, { ...fixed.value, ...level }, addresses[id].settings.value);
      });
      const request = computed(() => asked.value?.request ?? null);
      return [id, { analysis, asked, request, run: useAnalysis<AnyResult>(id, request, sample) }];
    }),
  );
  const current = computed(() => runs[picture.value]!);
  const found = computed(() => current.value.run.result.value);
  const shown = computed<Shown | null>(() =>
    found.value && !isUnavailable(found.value) ? ({ id: picture.value, result: found.value } as Shown) : null,
  );
  const whyNot = computed(() => (found.value && isUnavailable(found.value) ? found.value.reason : null));

  /** Titles alone, the same object while they are the same: another setting does not draw the old result anew. */
  const titles = unchanged<Titles>(() => {
    const { title, valueTitle, heightTitle } = addresses[picture.value].settings.value as Titles;
    return { title, valueTitle, heightTitle };
  });

  const describeAddress = useSettings('describe', ofAddress(describeAnalysis.method));
  const describeAsked = computed(() =>
    column.value
      ? askedOf(
          describeAnalysis,
          { ...fixed.value, ...quartiles.value, alpha: store.study!.alpha },
          describeAddress.settings.value,
        )
      : null,
  );
  const describeRequest = computed(() => describeAsked.value?.request ?? null);
  const described = useAnalysis<DescribeResult | Unavailable>('describe', describeRequest, sample);
  const figures = computed(() => (described.result.value?.available ? described.result.value : null));
  const beforeRequest = computed(() => (moved.value ? describeRequest.value : null));
  const before = useAnalysis<DescribeResult | Unavailable>('describe', beforeRequest, stored);
  const figuresBefore = computed(() => (before.result.value?.available ? before.result.value : null));

  const sharesAddress = useSettings('shares', sharesAnalysis.method);
  const sharesAsked = computed(() => {
    if (!column.value || panel.value !== 'shares') return null;
    const settings = sharesAddress.settings.value;
    const level = { ...fixed.value, alpha: store.study!.alpha };
    const { lowerLimit, upperLimit } = column.value;
    const specified = lowerLimit !== null || upperLimit !== null;
    const specification = { lower: lowerLimit ?? undefined, upper: upperLimit ?? undefined };
    if (settings.of === 'specification') {
      return specified ? askedOf(sharesAnalysis, level, { ...settings, ...specification }) : null;
    }
    if (settings.of !== 'limits') return askedOf(sharesAnalysis, level, settings);
    // The limits of the column until others are typed or dragged; without any, the quartiles.
    const start = specified ? specification : { lower: figures.value?.q1, upper: figures.value?.q3 };
    const typed = 'lower' in settings || 'upper' in settings;
    return askedOf(sharesAnalysis, level, { ...(typed ? {} : start), ...settings });
  });
  const sharesRequest = computed(() => sharesAsked.value?.request ?? null);
  /** Why there are no shares, where there are none. */
  const noShares = computed(() =>
    panel.value === 'shares' && column.value && !sharesRequest.value
      ? `${column.value.name} has no specification limits. Give them on its card in Readings, or count within others.`
      : '',
  );
  const shared = useAnalysis<SharesResult | Unavailable>('shares', sharesRequest, sample);
  const shares = computed(() => (shared.result.value?.available ? shared.result.value : null));

  const notes = computed<Note[]>(() => {
    const left = [current.value.asked.value, describeAsked.value, sharesAsked.value].flatMap(
      (asked) => asked?.left ?? [],
    );
    const all = [
      ...left,
      ...(figures.value?.notes ?? []),
      ...(shown.value?.result.notes ?? []),
      ...(shares.value?.notes ?? []),
    ];
    return all.filter((note, i) => all.findIndex(({ text }) => text === note.text) === i);
  });
  const failed = computed(() => current.value.run.failed.value ?? described.failed.value ?? shared.failed.value);
  const milliseconds = computed(() => Math.max(current.value.run.milliseconds.value, described.milliseconds.value));

  /** What the key K keeps: nothing while a reading is moved, since nothing of that is stored. */
  const keepable = computed(() => {
    const { analysis, request, run } = current.value;
    const pieces = [
      { analysis, request: request.value, result: shown.value?.result ?? null, whole: run.whole.value },
      {
        analysis: describeAnalysis,
        request: describeRequest.value,
        result: figures.value,
        whole: described.whole.value,
      },
    ];
    if (panel.value !== 'shares') return pieces;
    const whole = shared.whole.value;
    return [...pieces, { analysis: sharesAnalysis, request: sharesRequest.value, result: shares.value, whole }];
  });
  const about = computed(() =>
    column.value && stored.value && !moved.value
      ? { column: column.value.id, parts: parts.parts.value, sample: stored.value }
      : null,
  );

  return {
    ...{ column, parts, picture, show, panel, stored, sample, moved, shown, whyNot, notes, failed, milliseconds },
    ...{ figures, figuresBefore, shares, keepable, about },
    ...{ titles, address: computed(() => addresses[picture.value]) },
    ...{ current, describeAddress, describeRequest, sharesAddress, sharesRequest, noShares },
  };
}
