<script setup lang="ts">
import { galleryAnalysis, type GallerySample } from '@verdict/core/analyses';
import { formatP } from '@verdict/core/format';
import { computed, watch } from 'vue';
import { gallerySheet } from '../../../charts/pictures/gallery.js';
import { local } from '../../../language/language.js';
import { useStudy } from '../../../stores/study.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { plotSeen } from '../seen-plots.js';
import { useGallery, type GalleryAs } from './use-gallery.js';

/** What samples of this size look like whose origin is known, one of them large beside the readings. */
const store = useStudy();
const { column, name, cautions, run, stage, as, kind, drawAgain } = useGallery();
const { result } = run;

watch(
  result,
  (found) => {
    if (found && column.value && store.study) plotSeen(store.study.id, column.value.id);
  },
  { immediate: true },
);
const finding = computed(() => (result.value ? galleryAnalysis.finding(result.value) : []));
const sheet = computed(() => result.value && gallerySheet(result.value, name.value, as.value, kind.value));
const AS: { value: GalleryAs; label: string }[] = [
  { value: 'plot', label: 'Plots' },
  { value: 'histogram', label: 'Histograms' },
];
/** The two large cells come first. */
const LARGE = 2;
function choose(cell: number | null): void {
  const sample = result.value?.samples[(cell ?? -1) - LARGE];
  if (sample) kind.value = sample.kind;
}
const words = computed(() => {
  const said = (result.value?.samples ?? []).map(({ title, from }) => `${title}, from ${from}`);
  return `The readings of ${name.value} with simulated samples of the same size: ${said.join('; ')}. Arrow keys step from picture to picture, Enter enlarges one.`;
});
const p = ({ pValue }: GallerySample) => (pValue === null ? '–' : formatP(pValue, result.value!.alpha));
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions">
    <template #picture>
      <PictureCard
        label="Reference samples"
        :title="`${name} with reference samples`"
        :panels="sheet"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :besides="as === 'plot' ? 'Horizontal: readings in SDs from their mean. Vertical: normal score.' : ''"
        hint="Click a small picture to compare it with the readings."
        @choose="choose"
      >
        <template #choices>
          <el-segmented v-model="as" size="small" :options="AS" aria-label="Kind of picture" />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <div v-if="result" class="card box">
        <table class="figures">
          <thead>
            <tr>
              <th>drawn from</th>
              <th class="number">p of A²</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="sample in result.samples" :key="sample.kind" :class="{ chosen: sample.kind === kind }">
              <td>
                <el-button link :aria-pressed="sample.kind === kind" @click="kind = sample.kind">{{
                  sample.title
                }}</el-button>
                <span v-if="sample.kind === kind" class="soft from">{{ local(sample.from) }}</span>
              </td>
              <td class="number">{{ local(p(sample)) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="soft">
        Reference samples show how irregular a normal sample of this size may look, and how straight a non-normal one.
        <template v-if="as === 'plot'">Histograms show less than probability plots.</template>
      </p>
    </template>
    <template #actions>
      <el-button type="primary" @click="drawAgain">Simulate eight other samples</el-button>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
  font-size: 13px;
}
.from {
  display: block;
  font-size: 12px;
}
.chosen td {
  background: var(--tint);
}
td .el-button.is-link {
  padding: 0;
  border: 0;
  color: var(--ink);
}
th {
  font-weight: 400;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
