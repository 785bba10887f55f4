<script setup lang="ts">
import { NOTHING_SAID, type ChangeInput, type StudyColumn } from '@verdict/contract';
import { FAMILIES, familyByName } from '@verdict/core/distributions';
import { LONGEST_NAME } from '@verdict/core/readings';
import {
  derivationSchema,
  derive,
  derivedKind,
  readFormula,
  isPower,
  sampleOfColumn,
  shownFormula,
  sameLimits,
  transformedLimits,
  TRANSFORMATION_TITLES,
  TRANSFORMATIONS,
  usualName,
  type Derivation,
  type DerivationKind,
} from '@verdict/core/table';
import { computed, onMounted, reactive, ref, watch } from 'vue';
import CautionNote from '../../../components/caution-note.vue';
import { useStudy } from '../../../stores/study.js';
import FormulaField from './formula-field.vue';
import { shownDerived } from '../table/table-model.js';
import { typedNumber } from '../../../components/fields/typed-number.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceNumber from '../../../components/fields/sentence-number.vue';
import SentenceText from '../../../components/fields/sentence-text.vue';

/** A column calculated from others, or is made up, as a sentence with fields over its first values. Also changes one that stands already. */
const props = defineProps<{ kind: DerivationKind; source: StudyColumn | null; existing: StudyColumn | null }>();
const emit = defineEmits<{ done: [change: ChangeInput]; leave: [] }>();
const store = useStudy();

const others = computed(() => (store.study?.columns ?? []).filter(({ id }) => id !== props.existing?.id));
const numeric = computed(() => others.value.filter(({ kind }) => kind !== 'label'));
const counts = computed(() => numeric.value.filter(({ kind }) => kind === 'count'));
/** Trials stand in a count column, or are the same number in every row. */
const trialsOptions = computed(() => [
  ...counts.value
    .filter(({ id }) => id !== draft.source)
    .map(({ id, name }) => ({ value: id, text: `trials in ${name}` })),
  { value: 'number', text: 'trials, the same number in every row' },
]);
const old = props.existing?.derivation ?? null;
const firstSource =
  (props.source && numeric.value.find(({ id }) => id === props.source!.id)?.id) ?? numeric.value[0]?.id ?? '';

/** As many values as one makes up where the table says nothing. */
const USUAL_COUNT = 100;

/** What is typed, field by field: texts until they are read together. */
const draft = reactive({
  source: old && 'source' in old ? old.source : firstSource,
  divisor: old?.kind === 'given-score' ? 'given' : old?.kind === 'standard-score' ? old.divisor : 'sample',
  mean: old?.kind === 'given-score' ? String(old.mean) : '',
  sd: old?.kind === 'given-score' ? String(old.sd) : '',
  absolute: old?.kind === 'distance' ? old.absolute : false,
  by: old?.kind === 'transformed' ? old.by : 'logarithm',
  lambda: old?.kind === 'transformed' && old.lambda !== null ? String(old.lambda) : '0.5',
  trials: old?.kind === 'share' ? String(old.trials) : (counts.value[0]?.id ?? ''),
  trialsNumber: old?.kind === 'share' && typeof old.trials === 'number' ? String(old.trials) : '100',
  step: old?.kind === 'rounded' ? String(old.step) : old?.kind === 'made-up' ? String(old.step ?? '') : '',
  expression: old?.kind === 'formula' ? shownFormula(old.expression, others.value) : '',
  family: old?.kind === 'made-up' ? old.family : 'normal',
  parameters: (old?.kind === 'made-up' ? mapped(old.parameters) : {}) as Record<string, string>,
  count:
    old?.kind === 'made-up'
      ? String(old.count)
      : String((store.study?.rowCount ?? 0) > 1 ? store.study!.rowCount : USUAL_COUNT),
  seed: old?.kind === 'made-up' ? String(old.seed) : '1',
});
if (draft.trials !== '' && !counts.value.some(({ id }) => id === draft.trials)) draft.trials = 'number';
function mapped(numbers: Record<string, number>): Record<string, string> {
  return Object.fromEntries(Object.entries(numbers).map(([name, value]) => [name, String(value)]));
}

const family = computed(() => familyByName(draft.family));
watch(
  family,
  ({ parameters }) => {
    for (const { name, usual } of parameters) draft.parameters[name] ??= String(usual);
  },
  { immediate: true },
);

const formula = computed(() => (props.kind === 'formula' ? readFormula(draft.expression, others.value) : null));
const fault = computed(() => (formula.value && !formula.value.ok ? formula.value : null));

function wanted(): unknown {
  const { source } = draft;
  switch (props.kind) {
    case 'formula':
      return { kind: 'formula', expression: formula.value?.ok ? formula.value.stored : '' };
    case 'standard-score':
    case 'given-score':
      return draft.divisor === 'given'
        ? { kind: 'given-score', source, mean: typedNumber(draft.mean), sd: typedNumber(draft.sd) }
        : { kind: 'standard-score', source, divisor: draft.divisor };
    case 'distance':
      return { kind: 'distance', source, absolute: draft.absolute };
    case 'rank':
      return { kind: 'rank', source };
    case 'share':
      return {
        kind: 'share',
        source,
        trials: draft.trials === 'number' ? typedNumber(draft.trialsNumber) : draft.trials,
      };
    case 'transformed': {
      const { by, lambda } = draft;
      return { kind: 'transformed', source, by, lambda: isPower(by) ? typedNumber(lambda) : null };
    }
    case 'rounded':
      return { kind: 'rounded', source, step: typedNumber(draft.step) };
    case 'made-up': {
      const named = family.value.parameters.map(({ name }) => [name, typedNumber(draft.parameters[name] ?? '')]);
      const step = draft.step.trim() === '' ? null : typedNumber(draft.step);
      const { family: of } = draft;
      return {
        ...{ kind: 'made-up', family: of, parameters: Object.fromEntries(named), step },
        ...{ count: typedNumber(draft.count), seed: typedNumber(draft.seed) },
      };
    }
  }
}
const read = computed(() => derivationSchema.safeParse(wanted()));
const derivation = computed<Derivation | null>(() => read.value.data ?? null);
const wrong = computed(() => {
  if (!fault.value && !read.value.success) return read.value.error.issues[0]?.message ?? '';
  const { length } = typedName.value.trim();
  return length > LONGEST_NAME
    ? `A name has at most ${LONGEST_NAME} characters; this one has ${length}. Shorten it.`
    : '';
});

const sourceColumn = computed(() => others.value.find(({ id }) => id === draft.source));
const suggested = computed(() => {
  const taken = others.value.map(({ name: of }) => of);
  return usualName(props.kind, sourceColumn.value?.name ?? '', taken);
});
const typedName = ref(props.existing?.name ?? '');
const name = computed(() => typedName.value.trim() || suggested.value);

const column = computed<StudyColumn | null>(() => {
  if (!derivation.value) return null;
  const keepsUnit = ['distance', 'rounded'].includes(derivation.value.kind);
  const base = { ...NOTHING_SAID, decimal: 'point', thousands: 'none', kind: 'measure' } as const;
  const unit = keepsUnit ? (sourceColumn.value?.unit ?? '') : '';
  return {
    ...base,
    unit,
    ...(props.existing ? {} : limitsFor(derivation.value)),
    ...props.existing,
    id: props.existing?.id ?? 'not-there-yet',
    name: name.value,
    derivation: derivation.value,
  };
});
/** Limits and target of the source, transformed with its readings; none where the analyst has given the column others. */
function limitsFor(of: Derivation) {
  if (of.kind !== 'transformed' || !sourceColumn.value) return {};
  const { existing } = props;
  const own = existing && old?.kind === 'transformed' && transformedLimits(old, sourceColumn.value);
  return existing && !(own && sameLimits(existing, own)) ? {} : transformedLimits(of, sourceColumn.value);
}
const table = computed(() => {
  if (!column.value || !store.table) return null;
  const { derivation: of } = column.value;
  const rowCount = Math.max(store.table.rowCount, of?.kind === 'made-up' ? of.count : 0);
  return { ...store.table, rowCount, columns: [...others.value, column.value] };
});
const worked = computed(() => (table.value ? derive(table.value, column.value!) : null));
const isWords = computed(
  () => worked.value !== null && worked.value.cells.some((text) => text !== '' && Number.isNaN(Number(text))),
);
const ofSource = computed(() =>
  sourceColumn.value ? (store.sampleOf(sourceColumn.value.id)?.resolution ?? null) : null,
);
const step = computed(() => (table.value ? sampleOfColumn(table.value, column.value!).resolution : null));
const preview = computed(() =>
  (worked.value?.cells ?? [])
    .slice(0, 8)
    .map((text) => shownDerived(column.value!, text, worked.value!.values, step.value, ofSource.value) || '–'),
);

function finish(): void {
  if (!column.value || !worked.value || worked.value.fault || wrong.value) return;
  if (props.existing) {
    const { id: column_ } = props.existing;
    emit('done', {
      kind: 'change-column',
      column: column_,
      derivation: derivation.value!,
      ...limitsFor(derivation.value!),
      ...(name.value === props.existing.name ? {} : { name: name.value }),
    });
    return;
  }
  const kind = isWords.value ? 'label' : derivedKind(derivation.value!, worked.value.cells, column.value.unit);
  emit('done', { kind: 'add-columns', columns: [{ ...column.value, kind, id: crypto.randomUUID(), cells: [] }] });
}
const panel = ref<HTMLElement>();
onMounted(() => panel.value?.querySelector<HTMLElement>('.sentence input')?.focus());
</script>

<template>
  <section ref="panel" class="card side-panel" aria-label="Derived column" @keydown.esc="emit('leave')">
    <h2>
      {{
        existing
          ? `Change ${existing.name}`
          : kind === 'made-up'
            ? 'A simulated column'
            : 'A column calculated from others'
      }}
    </h2>
    <div class="sentence">
      <template v-if="kind === 'made-up'">
        Draw
        <SentenceNumber v-model="draft.count" live aria-label="Number of values" />
        values from a
        <SentenceChoice
          v-model="draft.family"
          aria-label="Family"
          :options="FAMILIES.map((one) => ({ value: one.family, text: one.title }))"
        />
        distribution with
        <template v-for="(parameter, i) in family.parameters" :key="parameter.name"
          ><template v-if="i > 0"> and </template>{{ parameter.title }}
          <SentenceNumber
            live
            :aria-label="parameter.title"
            :model-value="draft.parameters[parameter.name] ?? ''"
            @update:model-value="(text) => (draft.parameters[parameter.name] = text)" /></template
        >, rounded to <SentenceNumber v-model="draft.step" live placeholder="no rounding" aria-label="Step" />, from
        seed <SentenceNumber v-model="draft.seed" live aria-label="Seed" />. The same seed gives the same column.
      </template>
      <template v-else-if="kind === 'formula'">
        In every row, the value of
        <FormulaField v-model="draft.expression" :columns="others" :fault="fault" />
      </template>
      <template v-else>
        <template v-if="kind === 'standard-score' || kind === 'given-score'"
          >The distance in SDs that each reading of</template
        >
        <template v-else-if="kind === 'distance'">The distance that each reading of</template>
        <template v-else-if="kind === 'rank'">The rank of each reading of</template>
        <template v-else-if="kind === 'transformed'">The values of</template>
        <template v-else-if="kind === 'share'">The proportion that each count of</template>
        <template v-else>Each reading of</template>
        <SentenceChoice
          v-model="draft.source"
          aria-label="Source"
          :options="numeric.map((one) => ({ value: one.id, text: one.name }))"
        />
        <template v-if="kind === 'standard-score' || kind === 'given-score'">
          lies from
          <SentenceChoice
            v-model="draft.divisor"
            aria-label="Mean and SD"
            :options="[
              { value: 'sample', text: 'its own mean, with SD (n − 1)' },
              { value: 'population', text: 'its own mean, with SD (n)' },
              { value: 'given', text: 'a given mean, with a given SD' },
            ]"
          /><template v-if="draft.divisor === 'given'"
            >: mean <SentenceNumber v-model="draft.mean" live aria-label="Given mean" /> and SD
            <SentenceNumber v-model="draft.sd" live aria-label="Given SD" /></template
          >.
        </template>
        <template v-else-if="kind === 'distance'">
          lies from their mean,
          <SentenceChoice
            v-model="draft.absolute"
            aria-label="Sign"
            :options="[
              { value: false, text: 'with sign' },
              { value: true, text: 'without sign' },
            ]"
          />.
        </template>
        <template v-else-if="kind === 'transformed'">
          transformed by
          <SentenceChoice
            v-model="draft.by"
            aria-label="Transformation"
            :options="TRANSFORMATIONS.map((value) => ({ value, text: TRANSFORMATION_TITLES[value] }))"
          /><template v-if="isPower(draft.by)">
            with lambda <SentenceNumber v-model="draft.lambda" live aria-label="Lambda" /></template
          >, limits and target with them.
        </template>
        <template v-else-if="kind === 'rank'">, from the minimum; ties get the mean of their ranks.</template>
        <template v-else-if="kind === 'share'">
          is of its
          <SentenceChoice v-model="draft.trials" aria-label="Trials" :options="trialsOptions" /><template
            v-if="draft.trials === 'number'"
            >: <SentenceNumber v-model="draft.trialsNumber" live aria-label="Number of trials" /></template
          >.
        </template>
        <template v-else>
          rounded to the nearest multiple of <SentenceNumber v-model="draft.step" live aria-label="Step" />; halves are
          rounded away from 0.
        </template>
      </template>
    </div>
    <p v-if="wrong" class="said-wrong" role="alert">{{ wrong }}</p>
    <CautionNote v-if="worked?.fault" lead="No values" tone="wrong">{{ worked.fault }}</CautionNote>
    <template v-else-if="worked">
      <p class="soft note">
        First values: <span class="values">{{ preview.join(' · ') }}</span>
      </p>
      <CautionNote v-if="worked.failed.length" lead="Check">
        {{ worked.failed.length }} {{ worked.failed.length === 1 ? 'row has' : 'rows have' }} no value although all
        inputs are present, first in row {{ worked.failed[0] }}.
      </CautionNote>
    </template>
    <label class="name"
      >Name <SentenceText v-model="typedName" live :placeholder="suggested" aria-label="Name of the column"
    /></label>
    <div>
      <el-button type="primary" :disabled="!worked || worked.fault !== null || wrong !== ''" @click="finish">{{
        existing ? 'Change the column' : 'Add the column'
      }}</el-button>
      <el-button @click="emit('leave')">Cancel</el-button>
    </div>
  </section>
</template>

<style scoped>
.values {
  font-family: var(--mono);
  font-size: 12.5px;
}
.name .field {
  margin-left: 6px;
  min-width: 220px;
}
</style>
