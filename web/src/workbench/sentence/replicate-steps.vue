<script setup lang="ts">
import { groupThousands } from '@verdict/core/format';
import { computed } from 'vue';

/** How many replicates: one at a time, then many. */
const props = defineProps<{
  /** Null where all arrangements are gone through. */
  count: number | null;
  /** True where all arrangements can be gone through. */
  all?: boolean;
}>();
const emit = defineEmits<{ set: [count: number | null] }>();
const STEPS = [1, 10, 1_000, 10_000, 1_000_000];
const MOST = 1_000_000;
const options = computed(() => [
  ...(props.all ? [{ value: 0, label: 'all' }] : []),
  ...STEPS.map((value) => ({ value, label: groupThousands(value) })),
]);
const chosen = computed({
  get: () => props.count ?? 0,
  set: (value) => emit('set', value === 0 ? null : value),
});
</script>

<template>
  <el-button
    size="small"
    :disabled="count === null || count >= MOST"
    title="Simulate one more"
    @click="emit('set', (count ?? 0) + 1)"
    >one more</el-button
  >
  <el-segmented v-model="chosen" size="small" :options="options" aria-label="How many replicates" />
</template>
