<script setup lang="ts">
import { computed } from 'vue';
import type { Ask } from './ask.js';
import { useAddress } from '../run/use-address.js';

/** A stage that answers several questions, one at a time: the row of them, and the page of the one that is asked. */
const props = defineProps<{ asks: readonly Ask[]; label: string }>();
const address = useAddress();
const ask = computed(() => props.asks.find(({ id }) => id === address.textOf('ask')) ?? props.asks[0]!);
const choices = props.asks.map(({ id: value, word: label, title }) => ({ value, label, title }));
const chosen = computed({
  get: () => ask.value.id,
  set: (id) => void address.change({ ask: id === props.asks[0]!.id ? undefined : id }),
});
</script>

<template>
  <div class="asked">
    <el-segmented v-model="chosen" :options="choices" :aria-label="label">
      <template #default="{ item }">
        <span :title="item.title">{{ item.label }}</span>
      </template>
    </el-segmented>
    <component :is="ask.view" />
  </div>
</template>

<style scoped>
.asked {
  display: flex;
  flex-direction: column;
  gap: 8px;
  height: 100%;
}
.asked > :last-child {
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
  .asked {
    height: auto;
  }
}
</style>
