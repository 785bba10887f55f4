<script setup lang="ts">
import { groupThousands } from '@verdict/core/format';

/** Readings one below the other in a card that scrolls: the rows of its head and of its body come in slots. */
defineProps<{
  label: string;
  /** How many there are besides. */
  hidden: number;
}>();
</script>

<template>
  <section class="card list" :aria-label="label" tabindex="0">
    <table class="figures">
      <thead>
        <slot name="head" />
      </thead>
      <tbody>
        <slot />
      </tbody>
    </table>
    <p v-if="hidden > 0" class="soft">and {{ groupThousands(hidden) }} more</p>
  </section>
</template>

<style scoped>
.list {
  flex: none;
  max-height: 200px;
  padding: 4px 12px;
  overflow: auto;
  font-size: 12.5px;
}
table {
  width: 100%;
}
table.figures :deep(td),
table.figures :deep(th) {
  padding: 1px 6px;
}
table :deep(th) {
  position: sticky;
  top: -4px;
  background: var(--card);
  font-weight: 400;
  text-align: left;
}
table :deep(th.number) {
  text-align: right;
}
</style>
