<script setup lang="ts">
import { leafWords, stemText, type StemAndLeafResult } from '@verdict/core/analyses';
import { ElMessage } from 'element-plus';
import { computed, ref } from 'vue';
import { textToPng, textToSvg } from '../../charts/text-picture.js';
import { local } from '../../language/language.js';

/** Stem-and-leaf as text: depth, stem, leaves; one display beside the other for groups. */
const props = defineProps<{ result: StemAndLeafResult }>();

const displays = computed(() =>
  props.result.parts.map((part) => ({
    name: props.result.grouped ? `${part.name}, ${part.n}` : '',
    lines: stemText(part),
    unit: leafWords(part, props.result.unit),
  })),
);
const asText = () =>
  displays.value.flatMap(({ name, lines, unit }, i) => [
    ...(i > 0 ? [''] : []),
    ...(name ? [name] : []),
    ...lines,
    unit,
  ]);
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(asText().join('\n'));
  ElMessage.success('The text was copied.');
}

const root = ref<HTMLElement>();
const dress = (title: string) => {
  const style = getComputedStyle(root.value!);
  const token = (name: string) => style.getPropertyValue(name).trim();
  return { title, ground: token('--card') || '#fff', ink: token('--ink') };
};
defineExpose({
  toPng: (title: string) => textToPng(asText(), dress(title)),
  toSvg: (title: string) => textToSvg(asText(), dress(title)),
});
</script>

<template>
  <div ref="root" class="stems">
    <div class="displays" tabindex="0">
      <section v-for="display in displays" :key="display.name">
        <h3 v-if="display.name">{{ display.name }}</h3>
        <pre>{{ local(display.lines.join('\n')) }}</pre>
        <p class="soft">{{ local(display.unit) }}</p>
      </section>
    </div>
    <p class="soft">
      Left of each stem: the depth, counted from the nearer end. › marks the median.
      <el-button link @click="copy">Copy as text</el-button>
    </p>
  </div>
</template>

<style scoped>
.stems {
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 0;
}
.displays {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 8px 40px;
  min-height: 0;
  overflow: auto;
}
h3 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 600;
}
pre {
  margin: 6px 0 0;
  font: 15px/1.5 var(--mono);
}
p {
  margin: 4px 0;
  font-size: 12.5px;
}
</style>
