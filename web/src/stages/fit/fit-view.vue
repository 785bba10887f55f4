<script setup lang="ts">
import { computed } from 'vue';
import { useAddress } from '../../workbench/use-address.js';
import { ASKS } from './asks.js';

/** Does the subject follow a distribution, and how far are the look and the test to be trusted: one question at a time. */
const address = useAddress();
const ask = computed(() => ASKS.find(({ id }) => id === address.textOf('ask')) ?? ASKS[0]!);
const choices = ASKS.map(({ id: value, word: label, title }) => ({ value, label, title }));
const chosen = computed({
  get: () => ask.value.id,
  set: (id) => void address.change({ ask: id === ASKS[0]!.id ? undefined : id }),
});
</script>

<template>
  <div class="fit">
    <el-segmented v-model="chosen" :options="choices" aria-label="What is asked of the fit">
      <template #default="{ item }">
        <span :title="item.title">{{ item.label }}</span>
      </template>
    </el-segmented>
    <component :is="ask.view" />
  </div>
</template>

<style scoped>
.fit {
  display: flex;
  flex-direction: column;
  gap: 8px;
  height: 100%;
}
.fit > :last-child {
  flex: 1;
  min-height: 0;
  height: auto;
}
/* On a narrow page the row scrolls, not the page. */
.el-segmented {
  flex: none;
  align-self: flex-start;
  max-width: 100%;
  overflow-x: auto;
}
@media (max-width: 900px) {
  .fit {
    height: auto;
  }
}
</style>
