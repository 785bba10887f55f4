<script setup lang="ts">
import type { Titles } from '../../charts/value-axis.js';
import SentenceText from '../../components/fields/sentence-text.vue';

/** The words of a picture that can be written over its own. */
defineProps<{ titles: Titles }>();
const emit = defineEmits<{ titles: [titles: Titles] }>();

const FIELDS = [
  ['title', 'Title'],
  ['valueTitle', 'Axis of readings'],
  ['heightTitle', 'Other axis'],
] as const;
</script>

<template>
  <p class="titling">
    <label v-for="[key, label] in FIELDS" :key="key" class="soft"
      >{{ label }}
      <SentenceText
        :aria-label="label"
        :model-value="titles[key] ?? ''"
        placeholder="automatic"
        maxlength="80"
        @update:model-value="(text) => emit('titles', { [key]: text.trim() || undefined })"
      />
    </label>
  </p>
</template>

<style scoped>
.titling {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 0 0 4px;
  font-size: 13px;
}
.titling .field {
  min-width: 110px;
}
</style>
