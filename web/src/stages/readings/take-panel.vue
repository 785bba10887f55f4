<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import {
  asTally,
  looksLikeTally,
  parseTable,
  recogniseLayout,
  recogniseRows,
  splitRows,
  type BlockLayout,
  type ParsedBlock,
} from '@verdict/core/readings';
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue';
import CautionNote from '../../components/caution-note.vue';
import type { Facts, Incoming } from '../../files/incoming.js';
import { cutRange, fullRange } from '../../files/shown-values.js';
import { surveyInWorker } from '../../workers/analysis-pool.js';
import TakePreview from './take-preview.vue';
import { isLarge, likelyTarget, matched, sameFormat, type Taking, type Target } from './take.js';

/** What was recognised in readings on their way in, as a sentence with fields, over a preview; nothing is stored before it is taken. */
const props = defineProps<{
  incoming: Incoming;
  standing: StudyColumn[];
  rowCount: number;
  /** The cell that readings would be written over from, in words and by column; null where there is none. */
  cursor: { column: number; row: number } | null;
  /** A paste into the table means its cells. */
  over: boolean;
  /** The share of a streamed file that has gone up; null while nothing is under way. */
  progress: number | null;
}>();
const emit = defineEmits<{ take: [taking: Taking, layout: BlockLayout]; leave: []; stop: [] }>();

const large = isLarge(props.incoming);
const taken = computed(() => props.standing.map(({ name }) => name));
const sheet = ref(0);
const sheets = computed(() => (props.incoming.kind === 'sheets' ? props.incoming.sheets : []));
const range = ref(sheets.value[0] ? fullRange(sheets.value[0].rows) : '');
const rangeWrong = ref(false);
watch(sheet, (i) => (range.value = fullRange(sheets.value[i]!.rows)));

/** Rows that are there already; null for text, which is cut by its separator. */
const givenRows = computed<string[][] | null>(() => {
  if (props.incoming.kind === 'text') return null;
  return props.incoming.kind === 'rows'
    ? props.incoming.rows
    : (cutRange(sheets.value[sheet.value]!.rows, range.value) ?? []);
});
const recognised = (): BlockLayout =>
  props.incoming.kind === 'text'
    ? recogniseLayout(props.incoming.text)
    : { separator: 'none', ...recogniseRows(givenRows.value!) };
const layout = ref<BlockLayout>(recognised());
watch([range, sheet], () => {
  rangeWrong.value = cutRange(sheets.value[sheet.value]?.rows ?? [], range.value) === null;
  layout.value = recognised();
});

const block = shallowRef<ParsedBlock | null>(null);
const rowsNow = () => givenRows.value ?? splitRows((props.incoming as { text: string }).text, layout.value.separator);
const target = ref<Target>(
  large ? 'new columns' : likelyTarget(rowsNow(), layout.value, props.standing, props.cursor !== null && props.over),
);
/** Names are only taken for columns that would stand beside those of the table. */
const avoid = computed(() => (target.value === 'new columns' ? taken.value : []));
let latest = 0;
async function read(): Promise<void> {
  const run = ++latest;
  if (!large || props.incoming.kind !== 'text') {
    block.value = parseTable(rowsNow(), layout.value, avoid.value);
    return;
  }
  block.value = null;
  const found = await surveyInWorker(props.incoming.text, { ...layout.value }, [...avoid.value]);
  if (run === latest) block.value = found;
}
watch([() => ({ ...layout.value }), avoid, givenRows], read, { immediate: true });

const facts = computed<Record<string, Facts>>(() => (props.incoming.kind === 'rows' ? props.incoming.facts : {}));
const columns = computed(() =>
  (block.value?.columns ?? []).map((column) => ({ ...column, ...facts.value[column.name] })),
);
const match = computed(() => matched(columns.value, props.standing));

const names = (list: readonly { name: string }[]) => list.map(({ name }) => name).join(', ');
/** The columns that existing cells meet, for the question of decimal marks. */
const receiving = computed(() => {
  if (target.value === 'below') return match.value.pairs.map(({ into }) => into);
  return target.value === 'over' && props.cursor
    ? props.standing.slice(props.cursor.column, props.cursor.column + columns.value.length)
    : [];
});
const otherMarks = computed(() =>
  receiving.value.some((into) => into.kind !== 'label' && !sameFormat(into, layout.value)),
);
const rewrite = ref(true);
const outcome = computed(() => {
  const from = `row ${groupThousands(props.rowCount + 1)}`;
  if (target.value === 'below') {
    const { pairs, added, left } = match.value;
    const parts = [
      `${pairs.length} of ${columns.value.length} columns go below those of the same name, from ${from} on`,
    ];
    if (added.length) parts.push(`new and empty above: ${names(added)}`);
    if (left.length) parts.push(`empty from there on: ${names(left)}`);
    return `${parts.join('; ')}.`;
  }
  if (target.value === 'over' && props.cursor) {
    const room = props.standing.length - props.cursor.column;
    const first = props.standing[props.cursor.column];
    const lost = columns.value.length - room;
    const last = props.cursor.row + (block.value?.rows ?? 0) - 1;
    const grows = last > props.rowCount ? `; the table grows to ${groupThousands(last)} rows` : '';
    const why = lost > 0 ? `; ${lost} more would have no column to go into: take them as new columns` : '';
    return `Written over what stands from row ${props.cursor.row} of ${first?.name} on, ${Math.min(room, columns.value.length)} columns wide${grows}${why}.`;
  }
  return '';
});
const cannot = computed(() => {
  if (!block.value || block.value.refusal || rangeWrong.value) return true;
  if (target.value === 'below') return match.value.pairs.length === 0;
  return (
    target.value === 'over' &&
    (!props.cursor ||
      columns.value.length > props.standing.length - props.cursor.column ||
      receiving.value.some(({ derivation }) => derivation))
  );
});

/** Values with how often each occurred: offered as a tally, where they become columns of their own. */
const canTally = computed(() => !large && target.value === 'new columns' && looksLikeTally(columns.value));
const wantsTally = ref(true);
const previewed = computed(() => {
  const [values, counts] = columns.value;
  return canTally.value && wantsTally.value && values && counts ? asTally([values, counts]) : columns.value;
});

const finish = () =>
  emit(
    'take',
    {
      ...{ target: target.value, columns: columns.value, rewrite: rewrite.value && otherMarks.value },
      tally: canTally.value && wantsTally.value,
    },
    layout.value,
  );
const panel = ref<HTMLElement>();
onMounted(() => nextTick(() => panel.value?.querySelector<HTMLElement>('.actions button')?.focus()));
</script>

<template>
  <section ref="panel" class="panel card" aria-label="Readings to take" @keydown.esc="emit('leave')">
    <h2>{{ incoming.source }}</h2>
    <p class="sentence">
      <template v-if="incoming.kind === 'sheets'">
        Sheet
        <select v-model="sheet" class="field" aria-label="Sheet">
          <option v-for="(one, i) in sheets" :key="i" :value="i">{{ one.name }}</option></select
        >, cells
        <input
          v-model.lazy="range"
          class="field"
          :class="{ wrong: rangeWrong }"
          size="8"
          aria-label="Cells of the sheet"
        />, decimals with a
      </template>
      <template v-else-if="incoming.kind === 'rows'">A table of names and cells, decimals with a</template>
      <template v-else>
        Columns separated by
        <select v-model="layout.separator" class="field" aria-label="Separator">
          <option value="tab">tabs</option>
          <option value="comma">commas</option>
          <option value="semicolon">semicolons</option>
          <option value="blanks">blanks</option>
          <option value="none">nothing: one column</option></select
        >, decimals with a
      </template>
      <select v-model="layout.decimal" class="field" aria-label="Decimal mark">
        <option value="point">point</option>
        <option value="comma">comma</option></select
      >, thousands with
      <select v-model="layout.thousands" class="field" aria-label="Thousands mark">
        <option value="none">no mark</option>
        <option value="comma">a comma</option>
        <option value="point">a point</option>
        <option value="blank">a blank</option>
        <option value="apostrophe">an apostrophe</option></select
      >, names in
      <select v-model="layout.names" class="field" aria-label="Names">
        <option value="row 1">row 1</option>
        <option value="none">no row</option></select
      >, units in
      <select v-model="layout.units" class="field" aria-label="Units">
        <option value="row 2">row 2</option>
        <option value="none">no row of their own</option></select
      ><template v-if="standing.length && !large"
        >; taken
        <select v-model="target" class="field" aria-label="Where they go">
          <option value="new columns">as new columns</option>
          <option value="below">below the columns of the same names</option>
          <option v-if="cursor" value="over">over the cells from the cursor on</option>
        </select></template
      ><template v-if="otherMarks"
        >, numbers
        <select v-model="rewrite" class="field" aria-label="Marks of numbers">
          <option :value="true">rewritten with the marks of their columns</option>
          <option :value="false">kept as written</option>
        </select></template
      ><template v-if="canTally"
        >, as
        <select v-model="wantsTally" class="field" aria-label="Tally">
          <option :value="true">values with how often each occurred</option>
          <option :value="false">two columns of readings</option>
        </select></template
      >.
    </p>
    <p v-if="outcome" class="outcome">{{ outcome }}</p>
    <p v-if="rangeWrong" class="said-wrong" role="alert">“{{ range }}” is no range of cells; write it like B2:D40.</p>
    <p v-if="!block" class="soft" aria-busy="true">
      Reading {{ groupThousands(large ? Math.round((incoming as { text: string }).text.length / 1e6) : 0) }} million
      characters …
    </p>
    <template v-else>
      <CautionNote v-if="block.refusal" lead="Cannot be taken" tone="wrong">{{ block.refusal }}</CautionNote>
      <template v-else>
        <TakePreview :block="block" :columns="previewed" />
      </template>
    </template>
    <div v-if="progress !== null" class="actions" role="status">
      <el-progress :percentage="Math.round(progress * 100)" :stroke-width="10" class="progress" />
      <span>{{ progress < 1 ? 'on its way to the server …' : 'being stored …' }}</span>
      <el-button @click="emit('stop')">Stop</el-button>
    </div>
    <div v-else class="actions">
      <el-button type="primary" :disabled="cannot" @click="finish">
        {{
          cannot || !block
            ? 'Take the readings'
            : `Take ${groupThousands(block.rows)} ${block.rows === 1 ? 'row' : 'rows'} in ${columns.length} ${columns.length === 1 ? 'column' : 'columns'}`
        }}
      </el-button>
      <el-button @click="emit('leave')">Leave it</el-button>
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 12px;
  height: 100%;
  padding: 14px 18px 16px;
  overflow: auto;
}
h2 {
  margin: 0;
  font-size: 15px;
  font-weight: 600;
}
.sentence {
  margin: 0;
  font: 15px/1.75 var(--serif);
}
.outcome {
  margin: 0;
  color: var(--soft);
}
.progress {
  width: 240px;
}
</style>
