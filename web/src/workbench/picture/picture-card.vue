<script setup lang="ts">
import type { Chart } from 'chart.js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import ChartPicture, { type Place } from '../../charts/chart-picture.vue';
import DragHandles, { type Handle } from '../../charts/drag-handles.vue';
import { chartOf, pointable, pointedAt, pointedIn } from '../../charts/drawn.js';
import { isSheet, type Drawn } from '../../charts/picture.js';
import { useColours } from '../../charts/use-colours.js';
import type { Titles } from '../../charts/value-axis.js';
import { local } from '../../language/language.js';
import PictureActions from './picture-actions.vue';
import PictureTitles from './picture-titles.vue';
import type { Rows } from './rows.js';
import type { Leaving } from './use-picture-actions.js';

/** A picture with title and actions above, the text of the selected mark below, and drag handles. */
const props = withDefaults(
  defineProps<{
    title: string;
    panels: Drawn | null;
    /** What the picture says, for those who cannot see it. */
    words: string;
    label?: string;
    /** Why there is no such picture of these readings. */
    whyNot?: string | null;
    /** False where no reading is at fault. */
    mend?: boolean;
    /** True once working it out has failed: why is said beside it. */
    failed?: boolean;
    /** The table of the picture, computed when it is opened. */
    rows?: (() => Rows) | null;
    /** The titles written over the picture's own, where they can be written. */
    titles?: Titles | null;
    handles?: readonly Handle[];
    /** The axis along which the grips are dragged. */
    along?: 'x' | 'y';
    /** What an arrow key moves a grip by. */
    step?: number | null;
    /** What pointing does, said until something is pointed at; nothing where nothing can be. */
    hint?: string;
    /** What the axes leave out, in words. */
    besides?: string;
    /** False where the row pointed at cannot be set aside. */
    canSetAside?: boolean;
    /** Dimmed: the picture is of the last answer. */
    stale?: boolean;
    /** In place of the drawing, a picture that is no chart. */
    instead?: Leaving | null;
  }>(),
  {
    label: 'Picture',
    whyNot: null,
    mend: true,
    failed: false,
    rows: null,
    titles: null,
    handles: () => [],
    along: 'x',
    step: null,
    hint: '',
    besides: '',
    canSetAside: false,
    stale: false,
    instead: null,
  },
);
const emit = defineEmits<{
  titles: [titles: Titles];
  grab: [axis: { from: number; to: number }];
  drag: [id: string, value: number];
  done: [id: string];
  aside: [row: number];
  /** A bar, or none; `more` where it is chosen besides the others. */
  choose: [bar: number | null, more: boolean];
  /** The row behind the mark that is pointed at, and its bar. */
  pointed: [row: number | null, bar: number | null];
}>();

/** Fetched when a table is first looked at: it scrolls through a million rows, and weighs accordingly. */
const TableDialog = defineAsyncComponent(() => import('./table-dialog.vue'));
const card = ref<HTMLElement>();
const chart = ref<InstanceType<typeof ChartPicture>>();
const colours = useColours(card);
const place = ref<Place | null>(null);
const titling = ref(false);
const tableOpen = ref(false);
const pointed = ref<number | null>(null);

const leaving = computed(() => props.instead ?? chart.value);
const config = computed(() =>
  props.panels && colours.value ? chartOf(props.panels, colours.value, pointed.value) : null,
);
const find = (of: Chart, x: number, y: number) => (props.panels ? pointedAt(props.panels, of, x, y) : null);
const hit = computed(() => (pointed.value === null || !props.panels ? null : pointedIn(props.panels, pointed.value)));
// Marks of another picture are other marks: the key X must not take one for the other.
watch(
  () =>
    props.panels && (isSheet(props.panels) ? props.panels.cells : props.panels.hits).map(({ words }) => words).join(),
  () => (pointed.value = null),
);

watch(hit, (now) => emit('pointed', now?.row ?? null, now?.bar ?? null));
/** Points at the mark of a row, as it is pointed at elsewhere. */
function point(row: number): void {
  if (!props.panels || isSheet(props.panels)) return;
  const index = props.panels.hits.findIndex((one) => one.row === row);
  if (index >= 0) pointed.value = index;
}

function onPoint(index: number | null): void {
  // Moving off a mark keeps it: the way to the key X or the button is long.
  if (index !== null) pointed.value = index;
}
function onStep(by: number): void {
  const last = (props.panels ? pointable(props.panels) : 0) - 1;
  if (last < 0) return;
  pointed.value = pointed.value === null ? (by > 0 ? 0 : last) : Math.max(0, Math.min(last, pointed.value + by));
}
function choose(index: number | null, more: boolean): void {
  emit('choose', index === null || !props.panels ? null : (pointedIn(props.panels, index)?.bar ?? null), more);
}
/** The legend is also part of the text for screen readers. */
const said = computed(() => {
  const legend = (props.panels?.legend ?? []).map((entry) => entry.words);
  return [props.words, ...(legend.length ? [`Drawn: ${legend.join('; ')}.`] : [])].join(' ');
});
const axis = computed(() => (props.panels && !isSheet(props.panels) ? props.panels[props.along] : null));
/** Over panels one above the other there is no one place for a grip. */
const canDrag = computed(
  () => props.along === 'x' || (!!props.panels && !isSheet(props.panels) && props.panels.panels.length === 1),
);

defineExpose({
  point,
  pointedRows: () => (hit.value?.row === undefined ? [] : [hit.value.row]),
});
</script>

<template>
  <section ref="card" class="card picture-card" :class="{ stale }" :aria-label="label">
    <div class="title">
      <h2>{{ local(title) }}</h2>
      <slot name="choices" />
      <el-button v-if="titles && !instead" link :aria-expanded="titling" @click="titling = !titling">Titles</el-button>
      <el-button v-if="rows" link :disabled="!panels && !instead" @click="tableOpen = true">Table</el-button>
      <PictureActions :card="card" :picture="leaving" :title="title" />
    </div>
    <PictureTitles v-if="titles && titling && !instead" :titles="titles" @titles="(some) => emit('titles', some)" />
    <slot name="over" />
    <div v-if="whyNot" class="box none">
      <h3>No picture</h3>
      <p>{{ local(whyNot) }}</p>
      <p v-if="mend" class="soft">
        Readings can be pasted, typed or corrected in <RouterLink :to="{ name: 'readings' }">Readings</RouterLink>.
      </p>
    </div>
    <div v-else-if="$slots.instead" class="box"><slot name="instead" /></div>
    <div v-else class="box">
      <ChartPicture
        v-if="config"
        ref="chart"
        :config="config"
        :words="said"
        :hit-at="find"
        @point="onPoint"
        @step="onStep"
        @enter="choose(pointed, true)"
        @choose="(index, event) => choose(index, event.shiftKey || event.ctrlKey || event.metaKey)"
        @placed="(found) => (place = found)"
      />
      <DragHandles
        v-if="config && place && axis && canDrag && !stale"
        :handles="handles"
        :place="place"
        :from="axis.from"
        :to="axis.to"
        :along="along"
        :step="step"
        @grab="emit('grab', { from: axis.from, to: axis.to })"
        @drag="(id, value) => emit('drag', id, value)"
        @done="(id) => emit('done', id)"
      />
    </div>
    <p v-if="!panels && !instead && failed" class="pointed">The picture could not be calculated.</p>
    <p v-else-if="!panels && !instead && !whyNot" class="pointed soft" aria-busy="true">Drawing the picture …</p>
    <p v-else-if="hint && panels" class="pointed" role="status">
      <template v-if="hit">
        {{ local(hit.words) }}
        <template v-if="hit.row !== undefined">
          <el-button v-if="canSetAside" link @click="emit('aside', hit.row)">Set aside <kbd>X</kbd></el-button>
          <slot name="pointed" :row="hit.row" />
        </template>
      </template>
      <span v-else class="soft">{{ local(hint) }}</span>
      <span v-if="besides" class="soft besides">{{ local(besides) }}</span>
    </p>
    <slot name="below" />
    <TableDialog v-if="tableOpen && rows" :title="`Table of the ${title}`" :rows="rows()" @close="tableOpen = false" />
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
  gap: 2px 3px;
  align-items: baseline;
  font-size: 13px;
}
h2 {
  flex: 1 1 140px;
  margin: 0 0 4px;
  font-size: 15px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
h2::first-letter {
  text-transform: uppercase;
}
.box {
  position: relative;
  flex: 1;
  min-height: 200px;
}
.stale .box {
  opacity: 0.35;
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
.besides {
  margin-left: 6px;
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
