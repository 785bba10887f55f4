<script setup lang="ts">
import type { ChangeInput, StudyColumn } from '@verdict/contract';
import { COUNT_FIGURE, describeAnalysis, FIGURES } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { foundFigures } from '@verdict/core/road';
import { derivationWords } from '@verdict/core/table';
import { computed, toRef } from 'vue';
import CautionNote from '../../../components/caution-note.vue';
import FigureTable from '../../../components/figures/figure-table.vue';
import SetAsideList from '../../../workbench/set-aside/set-aside-list.vue';
import { useRun } from '../../../workbench/run/use-run.js';
import ColumnFacts from './column-facts.vue';
import LevelList from './level-list.vue';
import StripPicture from './strip-picture.vue';
import ToLookAt from './to-look-at.vue';
import type { ColumnProblems } from './use-column-problems.js';

/** The card of one column: its settings, first figures or levels, problems, and set-aside readings. */
const props = defineProps<{
  column: StudyColumn;
  columns: StudyColumn[];
  sample: Sample;
  cells: readonly string[];
  aside: { row: number; reason: string; who: string }[];
  problems: ColumnProblems;
  locked: boolean;
  /** Chosen readings that can be set aside, in words; empty when there are none. */
  chosen: string;
}>();
const emit = defineEmits<{
  change: [change: ChangeInput];
  go: [row: number];
  setAside: [];
  derive: [];
  freeze: [];
}>();

const { result: figures } = useRun(describeAnalysis, toRef(props, 'sample'), {
  fixed: () => ({ column: props.column.name }),
  settled: () => ({}),
});
const isNumeric = computed(() => props.column.kind !== 'label');
/** The first of its figures, each of which explains itself. */
const FIRST = ['mean', 'sd', 'min', 'max'].flatMap((key) => FIGURES.find((figure) => figure.key === key) ?? []);
const first = computed(() => (figures.value ? foundFigures([COUNT_FIGURE, ...FIRST], [figures.value]) : []));
</script>

<template>
  <div class="cards">
    <section class="card box" :aria-label="`Column ${column.name}`">
      <StripPicture v-if="isNumeric && sample.values.length" :column="column" :sample="sample" />
      <p v-if="column.derivation" class="soft follows">
        {{ derivationWords(column.derivation, columns) }}
        <template v-if="!locked">
          <el-button link @click="emit('derive')">Change</el-button>
          <el-button link @click="emit('freeze')">Freeze to plain values</el-button>
        </template>
      </p>
      <ColumnFacts
        :column="column"
        :columns="columns"
        :resolution="sample.resolution"
        :locked="locked"
        @change="(change) => emit('change', change)"
      />
    </section>
    <CautionNote v-if="problems.fault" lead="No values" tone="wrong">{{ problems.fault }}</CautionNote>
    <LevelList
      v-if="column.kind === 'label'"
      :column="column"
      :cells="cells"
      :locked="locked"
      @change="(change) => emit('change', change)"
    />
    <section v-if="figures && isNumeric" class="card box" aria-label="Summary">
      <FigureTable :rows="first" />
    </section>
    <ToLookAt :problems="problems" :derived="column.derivation !== null" @go="(row) => emit('go', row)" />
    <section v-if="aside.length || !locked" class="card box" aria-label="Set aside">
      <b>Set aside</b>
      <p v-if="!aside.length" class="soft none">No reading is set aside.</p>
      <SetAsideList :column-id="column.id" :readings="aside" @go="(row) => emit('go', row)" />
      <el-button v-if="!locked && chosen" size="small" @click="emit('setAside')">Set {{ chosen }} aside …</el-button>
    </section>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  gap: 12px;
  align-content: start;
}
.box {
  padding: 12px 16px;
}
.follows {
  margin: 0 0 8px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.none {
  margin: 2px 0 8px;
}
</style>
