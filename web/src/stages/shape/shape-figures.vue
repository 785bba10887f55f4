<script setup lang="ts">
import type { DescribeResult } from '@verdict/core/analyses';
import { formatPercent } from '@verdict/core/format';
import { foundFigures } from '@verdict/core/road';
import { computed, ref } from 'vue';
import FigureMeaning from '../../components/figures/figure-meaning.vue';
import FigureName from '../../components/figures/figure-name.vue';
import FigureTable from '../../components/figures/figure-table.vue';
import { local } from '../../language/language.js';
import OtherDefinitions from './other-definitions.vue';
import { COUNT_FIGURE, FIGURE_GROUPS, FIGURES, percentileFigures } from '@verdict/core/analyses';
import type { Figure } from '@verdict/core/analyses';

/** The figures beside the picture, by group or as a table of groups; each explains itself when it is asked. */
const props = defineProps<{ result: DescribeResult }>();
const emit = defineEmits<{ all: [] }>();

const figures = computed(() => [...FIGURES, ...percentileFigures(props.result)]);
const asked = ref<string | null>(null);
const explained = computed<Figure | null>(() => figures.value.find(({ key }) => key === asked.value) ?? null);
const ask = (key: string) => (asked.value = asked.value === key ? null : key);

const firstOf = (group: string) => figures.value.filter((figure) => figure.group === group && figure.first);
const nameOf = ({ key, name }: Figure) =>
  key === 'meanInterval' ? `${formatPercent(props.result.confidence)} confidence interval` : name;

/** The parts beside one another: a column of figures each. */
const beside = computed(() => {
  const first = figures.value.filter((figure) => figure.first).map((figure) => ({ ...figure, name: nameOf(figure) }));
  return foundFigures([COUNT_FIGURE, ...first], props.result.groups ?? []);
});
</script>

<template>
  <section class="shape-figures" aria-label="Figures">
    <FigureTable v-if="result.groups" :rows="beside" :heads="result.groups.map(({ name }) => name)">
      <template #default="{ figure }">
        <OtherDefinitions :key="figure.key" :of="figure.key" :parts="result.groups" />
      </template>
    </FigureTable>
    <div v-else class="groups">
      <table v-for="group in FIGURE_GROUPS" :key="group" class="figures">
        <thead>
          <tr>
            <th colspan="2">{{ group }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="figure in firstOf(group)" :key="figure.key">
            <td>
              <FigureName
                :figure="figure"
                :called="nameOf(figure)"
                :open="asked === figure.key"
                @ask="ask(figure.key)"
              />
            </td>
            <td class="number">{{ local(figure.text(result)) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <FigureMeaning v-if="explained" :figure="explained">
      <OtherDefinitions :of="explained.key" :parts="[result]" />
    </FigureMeaning>
    <el-button link class="all" @click="emit('all')">All figures, with formulas</el-button>
  </section>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 22px;
  align-items: start;
}
thead th {
  border-bottom-color: var(--ink);
  color: var(--ink);
  font-size: 13px;
  font-weight: 600;
}
table.figures td {
  padding: 3px 0;
}
.groups td.number {
  padding-left: 12px;
}
.all.all {
  margin-top: 6px;
  padding: 0;
  font-size: 13px;
}
</style>
