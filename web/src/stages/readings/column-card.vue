<script setup lang="ts">
import type { ChangeInput, StudyColumn } from '@verdict/contract';
import { describeAnalysis } from '@verdict/core/analyses';
import { formatFigure } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { derivationWords } from '@verdict/core/table';
import { computed, toRef } from 'vue';
import CautionNote from '../../components/caution-note.vue';
import SetAsideList from '../../workbench/set-aside-list.vue';
import { useRun } from '../../workbench/use-run.js';
import ColumnFacts from './column-facts.vue';
import LevelList from './level-list.vue';
import StripPicture from './strip-picture.vue';

/** The card of one column: what it is, its first figures or levels, what is wrong with it, what is set aside. */
const props = defineProps<{
  column: StudyColumn;
  columns: StudyColumn[];
  sample: Sample;
  cells: readonly string[];
  aside: { row: number; reason: string; who: string }[];
  problems: { row: number; text: string }[];
  problemCount: number;
  /** They are readings beyond a limit: there is nothing to mend. */
  onlyLimits: boolean;
  /** Why a derived column has no values at all. */
  fault: string | null;
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
const figure = (value: number | null, kind: 'location' | 'spread' | 'reading') =>
  value === null ? '–' : formatFigure(value, kind, props.sample.resolution);
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
    <CautionNote v-if="fault" lead="No values" tone="wrong">{{ fault }}</CautionNote>
    <LevelList
      v-if="column.kind === 'label'"
      :column="column"
      :cells="cells"
      :locked="locked"
      @change="(change) => emit('change', change)"
    />
    <section v-if="figures && isNumeric" class="card box" aria-label="First figures">
      <table class="figures">
        <tbody>
          <tr>
            <td>readings</td>
            <td class="number">{{ formatFigure(figures.n, 'count') }}</td>
          </tr>
          <tr>
            <td>mean</td>
            <td class="number">{{ figure(figures.mean, 'location') }}</td>
          </tr>
          <tr>
            <td>sd, n − 1</td>
            <td class="number">{{ figure(figures.sd, 'spread') }}</td>
          </tr>
          <tr>
            <td>least and greatest</td>
            <td class="number">{{ figure(figures.min, 'reading') }} · {{ figure(figures.max, 'reading') }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <CautionNote v-if="problems.length" lead="To look at">
      <ul>
        <li v-for="problem in problems.slice(0, 50)" :key="problem.row">
          <el-button link @click="emit('go', problem.row)">{{ problem.text }}</el-button>
        </li>
      </ul>
      <template v-if="problemCount > 50">and {{ problemCount - 50 }} more. </template>
      <template v-if="!column.derivation">
        Kept as written, left out
        {{ onlyLimits ? 'of every calculation for now.' : `until you mend ${problemCount === 1 ? 'it' : 'them'}.` }}
      </template>
    </CautionNote>
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
ul {
  max-height: 130px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li .el-button.is-link {
  --el-button-text-color: var(--ink);
  justify-content: start;
  padding-left: 0;
  text-align: left;
}
</style>
