import { readOff, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { computed, ref, type Ref } from 'vue';
import type { Shown } from './use-shown.js';
import type { PlotDrawing } from '../../../charts/pictures/probability-plot.js';

type Asked = { share: number } | { value: number };
/** Where reading off begins. */
const TENTH = 0.1;

/** What is read off the plot: a share or a value, typed or dragged along the axis of readings. */
export function useReadOff(
  plot: Ref<ProbabilityPlotResult | null>,
  drawing: Ref<PlotDrawing | null>,
  confidence: Ref<number>,
  shown: Ref<Shown>,
) {
  const asked = ref<Asked>({ share: TENTH });
  const read = computed(() =>
    plot.value
      ? (readOff(plot.value, asked.value, confidence.value) ?? readOff(plot.value, { share: TENTH }, confidence.value))
      : null,
  );
  /** Marks that are spoken of, while their words are pointed at. */
  const ringed = ref<readonly number[]>([]);
  /** The picture with the lines at what is read off, and with rings around what is spoken of. */
  const panels = computed(() => {
    const { value: of } = drawing;
    if (!of) return null;
    const lines = read.value && shown.value === 'found' ? of.readMarks(read.value) : [];
    const over = [...lines, ...of.ringMarks(ringed.value)];
    if (over.length === 0) return of.panels;
    const [panel] = of.panels.panels;
    // Below the readings: a ring must not cover what it is around.
    const first = panel!.marks.findIndex(({ kind }) => kind === 'points');
    return { ...of.panels, panels: [{ ...panel!, marks: panel!.marks.toSpliced(first, 0, ...over) }] };
  });
  const handles = computed(() => {
    const { value: of } = drawing;
    if (!of?.along || !read.value || shown.value !== 'found') return [];
    return [{ id: 'read', value: of.placeOf(read.value.value), label: 'Value read off', grip: 'end' as const }];
  });
  const ask = (what: Asked) => void (asked.value = what);
  const drag = (place: number) => drawing.value && ask({ value: drawing.value.readingAt(place) });
  return { read, ringed, panels, handles, ask, drag };
}
