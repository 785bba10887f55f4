<script setup lang="ts">
import { FIGURES, otherPercentiles, otherQuantiles, percentileFigures, type Described } from '@verdict/core/analyses';
import { computed } from 'vue';
import DetailList from '../../components/figures/detail-list.vue';

/** The other definitions of a figure, each with what it gives for the parts. */
const props = defineProps<{ of: string; parts: readonly Described[] }>();

const MOST_PARTS = 6;
const found = (part: Described): { definition: string; values: string[] }[] => {
  const figure = [...FIGURES, ...percentileFigures(part)].find(({ key }) => key === props.of);
  const named = (figure?.others ?? []).flatMap((key) => FIGURES.find((other) => other.key === key) ?? []);
  const list = named.map((other) => ({ definition: other.name, values: [other.text(part)] }));
  if (props.of === 'quartiles') return [...list, ...otherQuantiles(part)];
  const [, at] = /^percentile-(\d+)$/.exec(props.of) ?? [];
  return at === undefined ? list : [...list, ...otherPercentiles(part, Number(at))];
};
const others = computed(() => {
  // Of many parts the values would not be told apart: then each part is looked at by itself.
  if (props.parts.length > MOST_PARTS) return [];
  const byPart = props.parts.map(found);
  const definitions = [...new Set(byPart.flat().map(({ definition }) => definition))];
  return definitions.map((definition) => ({
    name: definition,
    text: byPart
      .map((list) => list.find((other) => other.definition === definition)?.values.join(' · ') ?? 'the same')
      .join(' | '),
  }));
});
</script>

<template>
  <DetailList v-if="others.length" :rows="others" />
  <p v-else-if="of === 'quartiles' && parts.length <= MOST_PARTS" class="soft">
    All other definitions give the same value here.
  </p>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
