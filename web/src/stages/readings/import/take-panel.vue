<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { asTally, looksLikeTally, MOST_COLUMNS, type BlockLayout } from '@verdict/core/readings';
import { computed, nextTick, onMounted, ref } from 'vue';
import CautionNote from '../../../components/caution-note.vue';
import type { Incoming } from '../../../files/incoming.js';
import TakeColumns from './take-columns.vue';
import TakePreview from './take-preview.vue';
import { matched, sameFormat, type Taking } from './take.js';
import { useIncomingBlock } from './use-incoming-block.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceText from '../../../components/fields/sentence-text.vue';

/** The recognised layout of incoming readings as a sentence with fields, above a preview; nothing is stored before it is imported. */
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

const {
  large,
  long,
  sheet,
  sheets,
  range,
  rangeWrong,
  layout,
  target,
  block,
  read,
  chosen,
  choosing,
  columns,
  shownBlock,
} = useIncomingBlock(props);
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
      `${pairs.length} of ${columns.value.length} columns are added below those of the same name, from ${from} on`,
    ];
    if (added.length) parts.push(`new columns, empty above: ${names(added)}`);
    if (left.length) parts.push(`empty from there on: ${names(left)}`);
    return `${parts.join('; ')}.`;
  }
  if (target.value === 'over' && props.cursor) {
    const room = props.standing.length - props.cursor.column;
    const first = props.standing[props.cursor.column];
    const lost = columns.value.length - room;
    const last = props.cursor.row + (block.value?.rows ?? 0) - 1;
    const grows = last > props.rowCount ? `; the table will have ${groupThousands(last)} rows` : '';
    const why = lost > 0 ? `; ${lost} more have no column to go into. Import them as new columns instead` : '';
    return `Overwrites cells from row ${props.cursor.row} of ${first?.name} on, ${Math.min(room, columns.value.length)} columns wide${grows}${why}.`;
  }
  return '';
});
const cannot = computed(() => {
  if (!block.value || block.value.refusal || rangeWrong.value) return true;
  if (columns.value.length === 0 || columns.value.length > MOST_COLUMNS) return true;
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
      positions: [...chosen.value].sort((a, b) => a - b),
    },
    layout.value,
  );
const panel = ref<HTMLElement>();
onMounted(() => nextTick(() => panel.value?.querySelector<HTMLElement>('.actions button')?.focus()));
</script>

<template>
  <section ref="panel" class="panel card" aria-label="Readings to import" @keydown.esc="emit('leave')">
    <h2>{{ incoming.source }}</h2>
    <p class="sentence">
      <template v-if="incoming.kind === 'sheets'">
        Sheet
        <SentenceChoice
          v-model="sheet"
          aria-label="Sheet"
          :options="sheets.map((one, i) => ({ value: i, text: one.name }))"
        />, cells <SentenceText v-model="range" :wrong="!!rangeWrong" aria-label="Cells of the sheet" />, decimals with
        a
      </template>
      <template v-else-if="incoming.kind === 'rows'">A table of names and cells, decimals with a</template>
      <template v-else>
        Columns separated by
        <SentenceChoice
          v-model="layout.separator"
          aria-label="Separator"
          :options="[
            { value: 'tab', text: 'tabs' },
            { value: 'comma', text: 'commas' },
            { value: 'semicolon', text: 'semicolons' },
            { value: 'blanks', text: 'spaces' },
            { value: 'none', text: 'nothing: one column' },
          ]"
        />, decimals with a
      </template>
      <SentenceChoice
        v-model="layout.decimal"
        aria-label="Decimal mark"
        :options="[
          { value: 'point', text: 'point' },
          { value: 'comma', text: 'comma' },
        ]"
      />, thousands with
      <SentenceChoice
        v-model="layout.thousands"
        aria-label="Thousands mark"
        :options="[
          { value: 'none', text: 'no mark' },
          { value: 'comma', text: 'a comma' },
          { value: 'point', text: 'a point' },
          { value: 'blank', text: 'a space' },
          { value: 'apostrophe', text: 'an apostrophe' },
        ]"
      />, names in
      <SentenceChoice
        v-model="layout.names"
        aria-label="Names"
        :options="[
          { value: 'row 1', text: 'row 1' },
          { value: 'none', text: 'no row' },
        ]"
      />, units in
      <SentenceChoice
        v-model="layout.units"
        aria-label="Units"
        :options="[
          { value: 'row 2', text: 'row 2' },
          { value: 'none', text: 'no row' },
        ]"
      /><template v-if="standing.length && !large"
        >; import
        <SentenceChoice
          v-model="target"
          aria-label="Where they go"
          :options="[
            { value: 'new columns', text: 'as new columns' },
            { value: 'below', text: 'below the columns of the same names' },
            ...(cursor ? [{ value: 'over', text: 'over the cells from the cursor on' }] : []),
          ]" /></template
      ><template v-if="otherMarks"
        >, numbers
        <SentenceChoice
          v-model="rewrite"
          aria-label="Marks of numbers"
          :options="[
            { value: true, text: 'converted to the marks of their columns' },
            { value: false, text: 'kept as written' },
          ]" /></template
      ><template v-if="canTally"
        >, as
        <SentenceChoice
          v-model="wantsTally"
          aria-label="Meaning"
          :options="[
            { value: true, text: 'values and frequencies' },
            { value: false, text: 'two columns of readings' },
          ]" /></template
      >.
    </p>
    <p v-if="outcome" class="outcome">{{ outcome }}</p>
    <p v-if="rangeWrong" class="said-wrong" role="alert">
      “{{ range }}” is not a range of cells. Write it like B2:D40.
    </p>
    <p v-if="!block" class="soft" aria-busy="true">Reading {{ groupThousands(long) }} thousand characters …</p>
    <template v-else>
      <CautionNote v-if="block.refusal" lead="Cannot be imported" tone="wrong">{{ block.refusal }}</CautionNote>
      <template v-else>
        <el-button v-if="read.length > 1" link class="choose" :aria-expanded="choosing" @click="choosing = !choosing">{{
          choosing ? 'Hide the columns' : 'Choose columns'
        }}</el-button>
        <TakeColumns v-if="choosing" v-model="chosen" :columns="read" />
        <TakePreview v-if="shownBlock" :block="shownBlock" :columns="previewed" />
      </template>
    </template>
    <div v-if="progress !== null" class="actions" role="status">
      <el-progress :percentage="Math.round(progress * 100)" :stroke-width="10" class="progress" />
      <span>{{ progress < 1 ? 'sending to the server …' : 'saving …' }}</span>
      <el-button @click="emit('stop')">Stop</el-button>
    </div>
    <div v-else class="actions">
      <el-button type="primary" :disabled="cannot" @click="finish">
        {{
          cannot || !block
            ? 'Import the readings'
            : `Import ${groupThousands(block.rows)} ${block.rows === 1 ? 'row' : 'rows'} in ${columns.length} ${columns.length === 1 ? 'column' : 'columns'}`
        }}
      </el-button>
      <el-button @click="emit('leave')">Cancel</el-button>
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
.choose.choose {
  align-self: start;
  padding: 0;
}
.outcome {
  margin: 0;
  color: var(--soft);
}
.progress {
  width: 240px;
}
</style>
