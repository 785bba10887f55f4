<script setup lang="ts">
import type { Bounds } from '@verdict/contract';
import { formatFigure } from '@verdict/core/format';
import type { Chart } from 'chart.js';
import { computed, ref, shallowRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import ChartPicture, { type Place } from '../../charts/chart-picture.vue';
import DragHandles, { type Handle } from '../../charts/drag-handles.vue';
import { hitAt, panelsChart } from '../../charts/panels.js';
import { boundsBeyond, type Titles } from '../../charts/shape/value-axis.js';
import { useColours } from '../../charts/use-colours.js';
import DraftField from '../../components/draft-field.vue';
import PictureActions from '../../components/picture-actions.vue';
import TableDialog from '../../components/table-dialog.vue';
import OtherBinnings from './other-binnings.vue';
import { pictureRows } from './picture-rows.js';
import { panelsOf, PICTURES, usualTitle, valuesAlong, type PictureId, type Shown } from './pictures.js';
import type { DragLine } from './use-dragging.js';
import StemText from './stem-text.vue';

/** The picture with its words above, what is pointed at below, and grips over it. */
const props = defineProps<{
  id: PictureId;
  shown: Shown | null;
  /** Why there is no such picture of these readings. */
  whyNot: string | null;
  subject: string;
  bounds: Bounds | null;
  titles: Titles;
  /** Lines over the picture that can be dragged. */
  lines: readonly DragLine[];
  locked: boolean;
}>();
const chosen = defineModel<ReadonlySet<number>>('chosen', { required: true });
const emit = defineEmits<{
  show: [id: PictureId];
  titles: [titles: Titles];
  drag: [id: string, value: number];
  done: [id: string];
  aside: [row: number];
  whatIf: [row: number];
}>();

const card = ref<HTMLElement>();
const chart = ref<InstanceType<typeof ChartPicture>>();
const stem = ref<InstanceType<typeof StemText>>();
const leaving = computed(() => chart.value ?? stem.value ?? undefined);
const colours = useColours(card);
const place = ref<Place | null>(null);
const titling = ref(false);
const tableOpen = ref(false);
const pointed = ref<number | null>(null);

const title = computed(() => props.titles.title ?? usualTitle(props.id, props.subject));
/** The axis while something is dragged along it. */
const hold = shallowRef<{ from: number; to: number } | null>(null);
const setting = computed(() => ({ bounds: props.bounds, titles: props.titles, lines: props.lines, hold: hold.value }));
const panels = computed(() => (props.shown ? panelsOf(props.shown, setting.value, chosen.value) : null));
const config = computed(() =>
  panels.value && colours.value ? panelsChart(panels.value, colours.value, pointed.value) : null,
);
const find = (of: Chart, x: number, y: number) => (panels.value ? hitAt(panels.value, of, x, y) : null);
// Marks of another result are other marks: the key X must not take one for the other.
watch(
  () => props.shown?.result,
  () => (pointed.value = null),
);
const hit = computed(() => (pointed.value === null ? null : (panels.value?.hits[pointed.value] ?? null)));
const beyond = computed(() =>
  props.shown && axis.value ? boundsBeyond(props.shown.result, axis.value, setting.value).join('; ') : '',
);

function onPoint(index: number | null): void {
  // Moving off a mark keeps it: the way to the key X or the button is long.
  if (index !== null) pointed.value = index;
}
function onStep(by: number): void {
  const last = (panels.value?.hits.length ?? 0) - 1;
  if (last < 0) return;
  pointed.value = pointed.value === null ? (by > 0 ? 0 : last) : Math.max(0, Math.min(last, pointed.value + by));
}
function choose(index: number | null, more = false): void {
  const bar = index === null ? undefined : panels.value?.hits[index]?.bar;
  if (bar === undefined) return void (chosen.value = new Set());
  const next = new Set(more ? chosen.value : []);
  if (chosen.value.has(bar)) next.delete(bar);
  else next.add(bar);
  chosen.value = next;
}
const pointedRow = () => hit.value?.row ?? null;
defineExpose({ pointedRow });

/** The axis of values, for what is dragged along it. */
const along = computed(() => (props.shown ? valuesAlong(props.shown) : 'x'));
const axis = computed(() => panels.value && panels.value[along.value]);
const handles = computed<Handle[]>(() => {
  const own = props.lines.map(({ id, at, label, tone }) => ({
    ...{ id, value: at, label },
    tone: tone === 'ochre' ? ('ochre' as const) : ('green' as const),
  }));
  if (props.shown?.id !== 'histogram' || props.lines.length > 0) return own;
  const { edges } = props.shown.result;
  return [
    { id: 'bin-start', value: edges[0]!, label: 'Start of the bins', grip: 'end' },
    { id: 'bin-width', value: edges[1]!, label: 'Width of the bins', grip: 'end' },
  ];
});
function grab(): void {
  hold.value = axis.value && { from: axis.value.from, to: axis.value.to };
}
function release(handle: string): void {
  hold.value = null;
  emit('done', handle);
}
const dragStep = computed(() => props.shown?.result.resolution ?? null);
const several = computed(() => (panels.value?.panels.length ?? 1) > 1 && along.value === 'y');

const FIELDS = [
  ['title', 'Title'],
  ['valueTitle', 'Axis of readings'],
  ['heightTitle', 'Other axis'],
] as const;
const words = computed(() => {
  if (!props.shown || !panels.value) return '';
  const { result } = props.shown;
  const parts = result.grouped ? `, ${result.parts.length} parts` : '';
  const ends = axis.value ? ` from ${figure(axis.value.from)} to ${figure(axis.value.to)}` : '';
  return `${title.value}: ${result.n} readings${parts}, axis${ends}. Arrow keys step from mark to mark, Enter chooses a bar.`;
});
const figure = (value: number) => formatFigure(value, 'reading', props.shown?.result.resolution ?? null);
</script>

<template>
  <section ref="card" class="card picture-card" aria-label="Picture">
    <div class="title">
      <h2>{{ title }}</h2>
      <nav aria-label="Pictures">
        <button
          v-for="one in PICTURES"
          :key="one.id"
          class="plain tab"
          :aria-pressed="one.id === id"
          @click="emit('show', one.id)"
        >
          {{ one.title }}
        </button>
      </nav>
      <span class="rule" aria-hidden="true"></span>
      <button v-if="id !== 'stem-and-leaf'" class="plain" :aria-expanded="titling" @click="titling = !titling">
        Titles
      </button>
      <button class="plain" :disabled="!shown" @click="tableOpen = true">Table</button>
      <PictureActions :card="card" :picture="leaving" :title="title" />
    </div>
    <p v-if="titling && id !== 'stem-and-leaf'" class="titling">
      <label v-for="[key, label] in FIELDS" :key="key" class="soft"
        >{{ label }}
        <DraftField
          class="field"
          :aria-label="label"
          :value="titles[key] ?? ''"
          placeholder="as it is"
          maxlength="80"
          @commit="(text) => emit('titles', { [key]: text.trim() || undefined })"
        />
      </label>
    </p>
    <div v-if="whyNot && !shown" class="box none">
      <h3>No picture</h3>
      <p>{{ whyNot }}</p>
      <p class="soft">
        Readings can be pasted, typed or mended in <RouterLink :to="{ name: 'readings' }">Readings</RouterLink>.
      </p>
    </div>
    <StemText v-else-if="shown?.id === 'stem-and-leaf'" ref="stem" class="box" :result="shown.result" />
    <div v-else class="box">
      <ChartPicture
        v-if="config"
        ref="chart"
        :config="config"
        :words="words"
        :hit-at="find"
        @point="onPoint"
        @step="onStep"
        @enter="choose(pointed, true)"
        @choose="(index, event) => choose(index, event.shiftKey || event.ctrlKey || event.metaKey)"
        @placed="(found) => (place = found)"
      />
      <DragHandles
        v-if="config && place && axis && !several"
        :handles="handles"
        :place="place"
        :from="axis.from"
        :to="axis.to"
        :along="along"
        :step="dragStep"
        @grab="grab"
        @drag="(handle, value) => emit('drag', handle, value)"
        @done="release"
      />
    </div>
    <p v-if="!shown && !whyNot" class="pointed soft" aria-busy="true">Drawing the picture …</p>
    <p v-else-if="shown && id !== 'stem-and-leaf'" class="pointed" role="status">
      <template v-if="hit">
        {{ hit.words }}
        <template v-if="hit.row !== undefined && !locked">
          <button class="plain" @click="emit('aside', hit.row)">Set aside <kbd>X</kbd></button>
          <button class="plain" @click="emit('whatIf', hit.row)">What if it moved?</button>
        </template>
      </template>
      <span v-else class="soft"
        >Point at a mark to see what it is{{ id === 'histogram' ? '; click a bar to choose its readings' : '' }}.</span
      >
      <span v-if="beyond" class="soft"> {{ beyond }}.</span>
    </p>
    <OtherBinnings v-if="shown?.id === 'histogram'" :result="shown.result" />
    <TableDialog
      v-if="tableOpen && shown"
      :title="`Table of the ${title}`"
      :rows="pictureRows(shown)"
      @close="tableOpen = false"
    />
  </section>
</template>

<style scoped>
.picture-card {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  padding: 12px 16px 10px;
}
.title {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 5px;
  align-items: baseline;
  font-size: 13.5px;
}
h2 {
  flex: 1 1 140px;
  margin: 0 0 4px;
  font-size: 15px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
nav {
  display: flex;
  gap: 0;
}
.tab {
  border-radius: 0;
  border-bottom: 2px solid transparent;
}
.tab[aria-pressed='true'] {
  border-bottom-color: var(--ink);
  color: var(--ink);
  font-weight: 500;
}
.rule {
  width: 1px;
  height: 13px;
  background: var(--line);
}
.titling {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 0 0 4px;
  font-size: 13px;
}
.titling .field {
  min-width: 110px;
}
.box {
  position: relative;
  flex: 1;
  min-height: 200px;
}
.none {
  padding: 24px;
}
.none h3 {
  margin: 0;
  font: 500 20px var(--serif);
}
.pointed {
  min-height: 22px;
  margin: 2px 0 0;
  font-size: 13px;
}
.picture-card:fullscreen {
  border-radius: 0;
}
@media (max-width: 900px) {
  .picture-card {
    height: 560px;
  }
}
</style>
