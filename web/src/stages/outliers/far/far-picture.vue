<script setup lang="ts">
import { extremesTable, influenceTable, plotTable, type BoxResult } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import { computed, ref } from 'vue';
import { boxPanels } from '../../../charts/pictures/box.js';
import { influencePanels, rowsPanels, stripPanels } from '../../../charts/pictures/outliers.js';
import { plotDrawing } from '../../../charts/pictures/probability-plot.js';
import type { Panels } from '../../../charts/picture.js';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import { PICTURES, type useFar } from './use-far.js';

/** The readings with mean, fences and the line of the rule: as a strip, over the rows, as box or plot; and what each moves. */
const props = defineProps<{ far: ReturnType<typeof useFar>; canSetAside: boolean }>();
const emit = defineEmits<{ pointed: [row: number | null]; aside: [row: number] }>();
const { column, name, run, box, plot, picture, moving } = props.far;
const { result } = run;
const card = ref<InstanceType<typeof PictureCard>>();

const boxed = (of: BoxResult) => boxPanels(of, { bounds: column.value, titles: {}, lines: [], hold: null });
const panels = computed<Panels | null>(() => {
  const { value: of } = result;
  if (!of) return null;
  switch (picture.value) {
    case 'strip':
      return stripPanels(of, name.value);
    case 'rows':
      return rowsPanels(of, name.value);
    case 'influence':
      return influencePanels(of, name.value, moving.value);
    case 'box':
      return box.result.value && boxed(box.result.value);
    case 'plot':
      return plot.result.value && 'law' in plot.result.value ? plotDrawing(plot.result.value, name.value).panels : null;
  }
  return null;
});
const TITLES = { strip: 'readings of', rows: 'readings in order of', box: 'box plot of', plot: 'probability plot of' };
const title = computed(() =>
  picture.value === 'influence'
    ? `influence of each reading of ${name.value}`
    : `${TITLES[picture.value as keyof typeof TITLES]} ${name.value}`,
);
const rows = computed(() => {
  const { value: of } = result;
  if (!of) return null;
  if (picture.value === 'influence') return () => influenceTable(of);
  const { value: plotted } = plot.result;
  if (picture.value === 'plot' && plotted && 'law' in plotted) return () => plotTable(plotted);
  return () => extremesTable(of);
});
const failed = computed(() => [run, box, plot].some((one) => one.failed.value !== null));
const words = computed(() =>
  result.value
    ? `${title.value}: ${groupThousands(result.value.n)} readings. Arrow keys step from reading to reading.`
    : '',
);
const OWN = ['strip', 'rows', 'influence'];
const hint = computed(() =>
  OWN.includes(picture.value)
    ? 'Point at a reading to see how extreme it is. Filled marks are flagged by the rule.'
    : 'Point at a reading to see its value.',
);
defineExpose({ point: (row: number) => card.value?.point(row) });
</script>

<template>
  <PictureCard
    ref="card"
    :title="title"
    :panels="panels"
    :words="words"
    :why-not="run.whyNot.value"
    :failed="failed"
    :rows="rows"
    :hint="hint"
    :can-set-aside="canSetAside"
    @pointed="(row) => emit('pointed', row)"
    @aside="(row) => emit('aside', row)"
  >
    <template #choices>
      <el-segmented v-model="picture" size="small" aria-label="Pictures" :options="[...PICTURES]" />
      <el-segmented
        v-if="picture === 'influence'"
        v-model="moving"
        size="small"
        aria-label="Statistic"
        :options="[
          { value: 'mean', label: 'Mean' },
          { value: 'sd', label: 'SD' },
        ]"
      />
    </template>
  </PictureCard>
</template>
