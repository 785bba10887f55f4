<script setup lang="ts">
import type { Described, DescribeResult } from '@verdict/core/analyses';
import { formatPercent, groupThousands } from '@verdict/core/format';
import { computed, nextTick, ref } from 'vue';
import { FIGURE_GROUPS, FIGURES, otherPercentiles, otherQuantiles, percentileFigures } from '@verdict/core/analyses';
import type { Figure } from '@verdict/core/analyses';

/** The figures beside the picture, by group or as a table of groups; each explains itself when it is asked. */
const props = defineProps<{ result: DescribeResult }>();
const emit = defineEmits<{ all: [] }>();

const figures = computed(() => [...FIGURES, ...percentileFigures(props.result)]);
const asked = ref<string | null>(null);
const explained = computed<Figure | null>(() => figures.value.find(({ key }) => key === asked.value) ?? null);
const note = ref<HTMLElement>();
function ask(key: string): void {
  asked.value = asked.value === key ? null : key;
  void nextTick(() => note.value?.scrollIntoView({ block: 'nearest' }));
}

const firstOf = (group: string) => figures.value.filter((figure) => figure.group === group && figure.first);
const nameOf = ({ key, name }: Figure) =>
  key === 'meanInterval' ? `${formatPercent(props.result.confidence)} interval` : name;

/** The other definitions of what is explained, each with what it gives. */
const others = computed(() => {
  const { value: figure } = explained;
  if (!figure) return [];
  const named = (figure.others ?? []).flatMap((key) => FIGURES.find((other) => other.key === key) ?? []);
  const list = named.map((other) => ({ definition: other.name, values: [other.text(props.result)] }));
  if (figure.key === 'quartiles') return [...list, ...otherQuantiles(props.result)];
  const [, at] = /^percentile-(\d+)$/.exec(figure.key) ?? [];
  return at === undefined ? list : [...list, ...otherPercentiles(props.result, Number(at))];
});
const OF_GROUPS = ['mean', 'sd', 'median', 'skewness'];
const columns = FIGURES.filter(({ key }) => OF_GROUPS.includes(key)).sort(
  (a, b) => OF_GROUPS.indexOf(a.key) - OF_GROUPS.indexOf(b.key),
);
const leftOut = ({ missing, setAside }: Described) =>
  [missing ? `${missing} missing` : '', setAside ? `${setAside} set aside` : ''].filter(Boolean).join(', ');
</script>

<template>
  <section class="shape-figures" aria-label="Figures">
    <div v-if="result.groups" class="scroll">
      <table class="figures by-group">
        <thead>
          <tr>
            <th>{{ result.by ?? 'column' }}</th>
            <th class="number">n</th>
            <th v-for="figure in columns" :key="figure.key" class="number">{{ figure.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="group in result.groups" :key="group.name">
            <td :title="leftOut(group)">{{ group.name }}</td>
            <td class="number">{{ groupThousands(group.n) }}</td>
            <td v-for="figure in columns" :key="figure.key" class="number">{{ figure.text(group) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
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
              <el-button link class="name" :aria-expanded="asked === figure.key" @click="ask(figure.key)">
                {{ nameOf(figure) }}
              </el-button>
            </td>
            <td class="number">{{ figure.text(result) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="explained" ref="note" class="explained" role="note">
      <p>
        <b>{{ explained.name }}</b> {{ explained.meaning }} <span class="formula">{{ explained.formula }}</span>
      </p>
      <ul v-if="others.length">
        <li v-for="other in others" :key="other.definition">
          <span>{{ other.definition }}</span> <span class="number">{{ other.values.join(' · ') }}</span>
        </li>
      </ul>
      <p v-else-if="explained.key === 'quartiles'" class="soft">All other definitions give the same here.</p>
    </div>
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
.name.name {
  --el-button-text-color: var(--ink);
  padding: 0;
  text-align: left;
}
.by-group th:not(:first-child) {
  color: var(--soft);
  font-size: 12px;
  font-weight: 400;
}
.scroll {
  max-height: 320px;
  overflow: auto;
}
.explained {
  margin-top: 8px;
  scroll-margin-bottom: 60px;
  border-left: 3px solid var(--green);
  padding: 6px 12px;
  background: var(--tint);
  font-size: 13px;
}
.explained p {
  margin: 0;
}
.formula {
  font-family: var(--serif);
  white-space: nowrap;
}
.explained ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.explained li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.all.all {
  margin-top: 6px;
  padding: 0;
  font-size: 13px;
}
</style>
