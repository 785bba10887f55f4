<script setup lang="ts">
import { NOTHING_SAID } from '@verdict/contract';
import { familyByName, type Parameters } from '@verdict/core/distributions';
import { derivationSchema, usualName } from '@verdict/core/table';
import { computed, ref } from 'vue';
import { useStudy } from '../../stores/study.js';
import type { Populated } from './use-population.js';

/** Makes a population of 100 000 as a column of the study, and draws from it: its own mean and sd are then the truth. */
const props = defineProps<{ populated: Populated }>();
const { run, from, setFrom } = props.populated;
const store = useStudy();
const MANY = 100_000;
const busy = ref(false);

const derivation = computed(() => {
  const { value: request } = run.request;
  const parameters = (run.result.value?.parameters ?? null) as Parameters | null;
  if (!request || !parameters || from.value === 'column' || (request.mixedShare ?? 0) > 0) return null;
  const made = {
    kind: 'made-up',
    family: request.family,
    parameters,
    count: MANY,
    step: request.step ?? null,
    seed: 1,
  };
  const read = derivationSchema.safeParse(made);
  return read.success ? read.data : null;
});

async function make(): Promise<void> {
  if (!derivation.value || !store.study || busy.value) return;
  busy.value = true;
  const { family } = run.request.value!;
  const id = crypto.randomUUID();
  const name = usualName(
    'made-up',
    '',
    store.study.columns.map((column) => column.name),
  );
  const kind = familyByName(family).discrete ? 'count' : 'measure';
  const facts = { ...NOTHING_SAID, decimal: 'point', thousands: 'none', unit: '', kind } as const;
  store.change({ kind: 'add-columns', columns: [{ ...facts, id, name, derivation: derivation.value, cells: [] }] });
  store.change({ kind: 'change-study', subject: id });
  await store.drained().finally(() => (busy.value = false));
  setFrom('column');
}
</script>

<template>
  <el-button
    v-if="derivation && !store.ruled"
    link
    :loading="busy"
    title="A column of 100 000 simulated readings; its mean and standard deviation are then the true values"
    @click="make"
    >Make it a column of 100&#8239;000</el-button
  >
</template>
