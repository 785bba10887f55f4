<script setup lang="ts">
import type { ChangeInput, StudyColumn } from '@verdict/contract';
import { countLevels, freeName, levelReader, spread, stack } from '@verdict/core/readings';
import { computed, ref } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { additionOf } from '../table/table-model.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceText from '../../../components/fields/sentence-text.vue';

/** Stacking columns, or splitting a column by a label: new columns beside the present ones. */
const props = defineProps<{ kind: 'stack' | 'spread'; chosen: StudyColumn[] }>();
const emit = defineEmits<{ done: [change: ChangeInput]; leave: [] }>();
const store = useStudy();

const columns = computed(() => store.study?.columns ?? []);
const names = computed(() => columns.value.map(({ name }) => name));
const numeric = computed(() => columns.value.filter(({ kind }) => kind !== 'label'));
const labels = computed(() => columns.value.filter(({ kind }) => kind === 'label'));

const picked = ref<string[]>(props.chosen.filter(({ kind }) => kind !== 'label').map(({ id }) => id));
const valueName = ref(freeName('stacked', names.value));
const labelName = ref(freeName('source', names.value));
const value = ref((props.chosen.find(({ kind }) => kind !== 'label') ?? numeric.value[0])?.id ?? '');
const by = ref((props.chosen.find(({ kind }) => kind === 'label') ?? labels.value[0])?.id ?? '');

const asideOf = (id: string) =>
  new Map((store.study?.setAside ?? []).filter(({ column }) => column === id).map(({ row, reason }) => [row, reason]));
const formatOf = ({ decimal, thousands, derivation }: StudyColumn) =>
  derivation ? ({ decimal: 'point', thousands: 'none' } as const) : { decimal, thousands };

const strands = computed(() =>
  picked.value.flatMap((id) => {
    const column = store.columnById(id);
    return column ? [{ column, name: column.name, cells: store.textsOf(id), aside: asideOf(id) }] : [];
  }),
);
const stacked = computed(() => stack(strands.value));
const levels = computed(() => {
  const column = store.columnById(by.value);
  return column ? countLevels(store.textsOf(by.value), column.levels) : [];
});

const objection = computed(() => {
  if (props.kind === 'stack') {
    if (picked.value.length < 2) return 'Choose at least two columns.';
    const [first, ...others] = strands.value.map(({ column }) => formatOf(column));
    return others.some(({ decimal }) => decimal !== first!.decimal)
      ? 'These columns use different decimal marks and cannot be stacked.'
      : '';
  }
  if (!value.value || !by.value) return 'Choose a number column and a label column.';
  if (levels.value.length > 50)
    return `The label column has ${levels.value.length} labels; at most 50 can become columns.`;
  return levels.value.length === 0 ? 'The label column is empty.' : '';
});

function stackChange(): ChangeInput {
  const [first] = strands.value.map(({ column }) => column);
  const { values, labels: sources, aside } = stacked.value;
  const measure = {
    ...formatOf(first!),
    name: valueName.value.trim() || 'stacked',
    unit: first!.unit,
    kind: first!.kind,
    cells: values,
    aside,
  };
  const label = {
    decimal: 'point',
    thousands: 'none',
    name: labelName.value.trim() || 'source',
    unit: '',
    kind: 'label',
    cells: sources,
  } as const;
  return additionOf([measure, label], `stacked from ${strands.value.map(({ name }) => name).join(', ')}`);
}
function spreadChange(): ChangeInput {
  const column = store.columnById(value.value)!;
  const label = store.columnById(by.value)!;
  const levelOf = levelReader(label.levels);
  const rows = store.textsOf(label.id).map(levelOf);
  const parts = spread(
    { cells: store.textsOf(column.id), aside: asideOf(column.id) },
    rows,
    levels.value.map(({ name }) => name),
  );
  const taken = [...names.value];
  const added = parts.map(({ name, cells, aside }) => {
    const own = freeName(`${column.name} ${name.trim()}`.slice(0, 74), taken);
    taken.push(own);
    return { ...formatOf(column), name: own, unit: column.unit, kind: column.kind, cells, aside };
  });
  return additionOf(added, `${column.name} split by ${label.name}`);
}
const finish = () => emit('done', props.kind === 'stack' ? stackChange() : spreadChange());
</script>

<template>
  <section
    class="card side-panel"
    :aria-label="kind === 'stack' ? 'Stack columns' : 'Split a column'"
    @keydown.esc="emit('leave')"
  >
    <h2>{{ kind === 'stack' ? 'Stack columns' : 'Split a column' }}</h2>
    <div v-if="kind === 'stack'" class="sentence">
      Put
      <el-checkbox-group v-model="picked" class="picked"
        ><el-checkbox v-for="column in numeric" :key="column.id" :value="column.id">{{
          column.name
        }}</el-checkbox></el-checkbox-group
      >
      as
      <SentenceText v-model="valueName" live maxlength="80" aria-label="Name of the number column" />, with the source
      column as the label <SentenceText v-model="labelName" live maxlength="80" aria-label="Name of the label" />.
    </div>
    <div v-else class="sentence">
      Split
      <SentenceChoice
        v-model="value"
        aria-label="Column to split"
        :options="numeric.map((column) => ({ value: column.id, text: column.name }))"
      />
      into one column for each label of
      <SentenceChoice
        v-model="by"
        aria-label="Label to split by"
        :options="labels.map((column) => ({ value: column.id, text: column.name }))"
      /><template v-if="levels.length"
        >:
        {{
          levels
            .slice(0, 8)
            .map(({ name, count }) => `${name.trim()} (${count})`)
            .join(', ')
        }}</template
      >.
    </div>
    <p class="soft note">
      The existing columns do not change. Readings that are set aside stay set aside.
      <template v-if="kind === 'stack' && !objection">{{ stacked.values.length }} rows.</template>
    </p>
    <p v-if="objection" class="said-wrong" role="status">{{ objection }}</p>
    <div>
      <el-button type="primary" :disabled="objection !== ''" @click="finish">Add the columns</el-button>
      <el-button @click="emit('leave')">Cancel</el-button>
    </div>
  </section>
</template>

<style scoped>
.picked {
  display: inline;
}
</style>
