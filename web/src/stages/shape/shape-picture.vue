<script setup lang="ts">
import { formatFigure, groupThousands } from '@verdict/core/format';
import { computed, ref, shallowRef } from 'vue';
import type { Handle } from '../../charts/drag-handles.vue';
import { boundsBeyond } from '../../charts/value-axis.js';
import PictureCard from '../../workbench/picture/picture-card.vue';
import OtherBinnings from './other-binnings.vue';
import { binsIn, HISTOGRAM, leavesIn, PICTURES } from './pictures.js';
import StemText from './stem-text.vue';
import { useDragging } from './use-dragging.js';
import type { useShape } from './use-shape.js';

/** The picture of Shape that is looked at, the words for the others above it, its grips over it. */
const props = defineProps<{ shape: ReturnType<typeof useShape>; subject: string; canSetAside: boolean }>();
const chosen = defineModel<ReadonlySet<number>>('chosen', { required: true });
const emit = defineEmits<{ aside: [row: number]; whatIf: [row: number] }>();

const { column, picture, show, shown, current, titles, address } = props.shape;
const { lines, drag, done } = useDragging(props.shape);
const card = ref<InstanceType<typeof PictureCard>>();
const stem = ref<InstanceType<typeof StemText>>();

const title = computed(() => titles.value.title ?? picture.value.title(props.subject));
const bins = computed(() => binsIn(shown.value));
const leaves = computed(() => leavesIn(shown.value));
/** The axis while something is dragged along it. */
const hold = shallowRef<{ from: number; to: number } | null>(null);
const setting = computed(() => ({
  bounds: column.value,
  titles: titles.value,
  lines: lines.value,
  hold: hold.value,
}));
const panels = computed(() => shown.value?.panels(setting.value, chosen.value) ?? null);
const rows = computed(() => shown.value?.rows ?? null);

/** The axis of values, for what is dragged along it. */
const along = computed(() => shown.value?.along ?? 'x');
const axis = computed(() => panels.value && panels.value[along.value]);
const beyond = computed(() => {
  if (!shown.value || !axis.value) return '';
  const words = boundsBeyond(shown.value.result, axis.value, setting.value).join('; ');
  return words && `${words}.`;
});
const handles = computed<Handle[]>(() => {
  const own = lines.value.map(({ id: line, at, label, tone }) => ({ id: line, value: at, label, tone }));
  if (!bins.value || own.length > 0) return own;
  const { edges } = bins.value;
  return [
    { id: 'bin-start', value: edges[0]!, label: 'Handle for the start of the bins', grip: 'end' },
    { id: 'bin-width', value: edges[1]!, label: 'Handle for the width of the bins', grip: 'end' },
  ];
});
function release(handle: string): void {
  hold.value = null;
  done(handle);
}
function choose(bar: number | null, more: boolean): void {
  if (bar === null) return void (chosen.value = new Set());
  const next = new Set(more ? chosen.value : []);
  if (chosen.value.has(bar)) next.delete(bar);
  else next.add(bar);
  chosen.value = next;
}

const hint = computed(() =>
  picture.value.id === HISTOGRAM.id
    ? 'Point at a mark to see its values. Click a bar to choose its readings.'
    : 'Point at a mark to see its values.',
);
const words = computed(() => {
  if (!shown.value) return '';
  const { result } = shown.value;
  const figure = (value: number) => formatFigure(value, 'reading', result.resolution);
  const parts = result.grouped ? `, ${result.parts.length} parts` : '';
  const ends = axis.value ? ` from ${figure(axis.value.from)} to ${figure(axis.value.to)}` : '';
  return `${title.value}: ${groupThousands(result.n)} readings${parts}, axis${ends}. Arrow keys step from mark to mark, Enter chooses a bar.`;
});
const CHOICES = PICTURES.map(({ id: value, tab: label }) => ({ value, label }));
defineExpose({ pointedRows: () => card.value?.pointedRows() ?? [] });
</script>

<template>
  <PictureCard
    ref="card"
    :title="title"
    :panels="panels"
    :words="words"
    :why-not="shown ? null : current.whyNot.value"
    :failed="current.failed.value !== null"
    :rows="rows"
    :titles="titles"
    :handles="handles"
    :along="along"
    :step="shown?.result.resolution ?? null"
    :hint="hint"
    :besides="beyond"
    :can-set-aside="canSetAside"
    :instead="picture.isText ? (stem ?? null) : null"
    @titles="(written) => address.setAll({ ...written })"
    @grab="(found) => (hold = found)"
    @drag="drag"
    @done="release"
    @aside="(row) => emit('aside', row)"
    @choose="choose"
  >
    <template #choices>
      <el-segmented
        class="pictures"
        size="small"
        aria-label="Pictures"
        :model-value="picture.id"
        :options="CHOICES"
        @change="show"
      />
    </template>
    <template v-if="leaves" #instead><StemText ref="stem" :result="leaves" /></template>
    <template #pointed="{ row }">
      <el-button v-if="canSetAside" link @click="emit('whatIf', row)">What if a reading changed?</el-button>
    </template>
    <template #below><OtherBinnings v-if="bins" :result="bins" /></template>
  </PictureCard>
</template>
