<script setup lang="ts">
withDefaults(defineProps<{ lead?: string; tone?: 'caution' | 'wrong' }>(), { lead: 'Caution', tone: 'caution' });
</script>

<template>
  <div class="caution" :class="tone" :role="tone === 'wrong' ? 'alert' : 'note'">
    <strong>{{ lead }}</strong> <slot />
  </div>
</template>

<style scoped>
.caution {
  border-left: 3px solid var(--ochre);
  border-radius: 0 6px 6px 0;
  padding: 8px 12px;
  background: var(--ochre-tint);
  font-size: 13px;
  overflow-wrap: anywhere;
}
.caution strong {
  margin-right: 4px;
  color: var(--ochre-text);
  font-weight: 600;
}
.caution.wrong {
  border-left-color: var(--rust);
}
.caution.wrong strong {
  color: var(--rust);
}
</style>
