<script setup lang="ts">
import { computed } from 'vue';
import SentenceChoice from '../../components/fields/sentence-choice.vue';

/** Which two of the groups are meant, as words of a sentence: "south and north". */
const props = defineProps<{
  names: readonly string[];
  /** Those that are meant now. */
  chosen: { first?: string | undefined; second?: string | undefined };
  /** What each is called where it cannot be seen. */
  called: string;
}>();
const emit = defineEmits<{ choose: [which: 'first' | 'second', name: string] }>();
const options = computed(() => props.names.map((text) => ({ value: text, text })));
</script>

<template>
  <SentenceChoice
    :model-value="chosen.first ?? ''"
    :aria-label="`first ${called}`"
    :options="options"
    @update:model-value="(name) => emit('choose', 'first', name)"
  />
  and
  <SentenceChoice
    :model-value="chosen.second ?? ''"
    :aria-label="`second ${called}`"
    :options="options"
    @update:model-value="(name) => emit('choose', 'second', name)"
  />
</template>
