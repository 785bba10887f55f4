<script setup lang="ts">
import { computed } from 'vue';
import { groupThousands } from '@verdict/core/format';
import CautionNote from '../../../components/caution-note.vue';
import { MOST_LISTED, type ColumnProblems } from './use-column-problems.js';

/** The places of a column that want a look: cells that are no readings, and readings outside its limits. */
const props = defineProps<{ problems: ColumnProblems; derived: boolean }>();
const emit = defineEmits<{ go: [row: number] }>();

const lists = computed(() => {
  const { list, count, onlyLimits, outside, outsideCount } = props.problems;
  const mend = onlyLimits ? 'of all calculations.' : `until you correct ${count === 1 ? 'it' : 'them'}.`;
  return [
    { lead: 'Check', list, count, after: props.derived ? '' : `Not numbers, left out ${mend}` },
    {
      ...{ lead: 'Outside the limits', list: outside, count: outsideCount },
      after: `${outsideCount === 1 ? 'It counts' : 'They count'}: correct a typing error, or set aside with a reason.`,
    },
  ].filter(({ list: places }) => places.length > 0);
});
</script>

<template>
  <CautionNote v-for="{ lead, list, count, after } in lists" :key="lead" :lead="lead">
    <ul :aria-label="lead">
      <li v-for="{ row, text } in list.slice(0, MOST_LISTED)" :key="row">
        <el-button link @click="emit('go', row)">{{ text }}</el-button>
      </li>
    </ul>
    <template v-if="count > MOST_LISTED">and {{ groupThousands(count - MOST_LISTED) }} more. </template>
    {{ after }}
  </CautionNote>
</template>

<style scoped>
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
  white-space: normal;
}
</style>
