<script setup lang="ts">
import type { Explained } from '@verdict/core/road';
import { onMounted, ref, watch } from 'vue';
import { local } from '../../language/language.js';

/** The meaning of a figure, when to use it, and its formula. */
const { figure } = defineProps<{ figure: Explained }>();
const note = ref<HTMLElement>();
const show = () => note.value?.scrollIntoView({ block: 'nearest' });
onMounted(show);
watch(() => figure.key, show, { flush: 'post' });
</script>

<template>
  <div ref="note" class="figure-meaning" role="note">
    <p>
      <b>{{ figure.name }}</b> {{ local(`${figure.meaning} ${figure.use}`) }}
      <span class="formula">{{ local(figure.formula) }}</span>
    </p>
    <slot />
  </div>
</template>

<style scoped>
.figure-meaning {
  margin-top: 8px;
  scroll-margin-bottom: 60px;
  border-left: 3px solid var(--green);
  padding: 6px 12px;
  background: var(--tint);
  font-size: 13px;
}
p {
  margin: 0;
}
.formula {
  font-family: var(--serif);
}
</style>
