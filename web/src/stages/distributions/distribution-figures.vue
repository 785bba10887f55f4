<script setup lang="ts">
import { DISTRIBUTION_FIGURES, type DistributionResult } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import FigureTable from '../../components/figures/figure-table.vue';

/** The figures of a distribution, those of a second one in a column of its own. */
const props = defineProps<{ result: DistributionResult; over: DistributionResult | null }>();

const results = computed(() => (props.over ? [props.result, props.over] : [props.result]));
const heads = computed(() => (props.over ? results.value.map(({ family }) => familyByName(family).title) : undefined));
const rows = computed(() => foundFigures(DISTRIBUTION_FIGURES, results.value));
</script>

<template>
  <div class="card box"><FigureTable :rows="rows" :heads="heads" /></div>
</template>

<style scoped>
.box {
  padding: 4px 14px;
  font-size: 13px;
}
</style>
