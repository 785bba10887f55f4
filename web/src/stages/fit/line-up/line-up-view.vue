<script setup lang="ts">
import { LINE_UP_FIGURES, lineUpAnalysis, PLACES } from '@verdict/core/analyses';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import { lineUpSheet } from '../../../charts/pictures/line-up.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import FigureTable from '../../../components/figures/figure-table.vue';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useLineUp } from './use-line-up.js';

/** The readings among nineteen simulated samples of the distribution: the viewer picks the odd one, and the answer is shown. */
const {
  column,
  name,
  cautions,
  run,
  stage,
  about,
  pick,
  picked,
  seen,
  known,
  decide,
  another,
  begin,
  change,
  objection,
} = useLineUp();
const { result } = run;
const finding = computed(() => (result.value ? lineUpAnalysis.finding(result.value) : []));
const sheet = computed(() => result.value && lineUpSheet(result.value, name.value, pick.value ?? about.value));
const rows = computed(() =>
  result.value && result.value.viewers.length > 0 ? foundFigures(LINE_UP_FIGURES, [result.value]) : [],
);
const places = ['', ...Array.from({ length: PLACES }, (_, i) => String(i + 1))].map((value) => ({
  value,
  text: value || '…',
}));
const place = computed({
  get: () => (about.value === null ? '' : String(about.value)),
  set: (text) => (about.value = text === '' ? null : Number(text)),
});
function point(cell: number | null): void {
  if (pick.value === null && cell !== null) about.value = cell + 1;
}
const words = computed(() => {
  const said = finding.value.map(({ text }) => text).join('');
  return `${PLACES} small pictures, numbered from 1. ${said} Arrow keys step from picture to picture, Enter picks one.`;
});
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions">
    <template #picture>
      <PictureCard
        label="Line-up"
        :title="picked ? `line-up of ${name}` : 'line-up'"
        :panels="sheet"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :hint="picked ? 'Point at a picture to see its position.' : 'Click the one that differs from the others.'"
        :besides="
          run.request.value?.as === 'plot' ? 'Horizontal: readings in SDs from their mean. Vertical: normal score.' : ''
        "
        @choose="point"
      />
    </template>
    <template #figures>
      <section v-if="result && !picked" class="card box" aria-label="The pick">
        <p class="pick">
          <span>My pick is position <SentenceChoice v-model="place" aria-label="Place" :options="places" /></span>
          <el-button type="primary" :disabled="about === null" @click="decide">Show the result</el-button>
        </p>
        <el-checkbox v-model="seen">I have seen a plot of these readings before</el-checkbox>
        <p v-if="known" class="soft">
          This page has already shown a plot of the readings. Ask somebody who has not seen it; their pick is stronger
          evidence.
        </p>
      </section>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
      <p v-if="result && !picked" class="soft">
        The position of the readings is random and is shown after the pick. If the readings come from the distribution,
        1 pick in 20 is correct by chance.
      </p>
    </template>
    <template #actions>
      <el-button v-if="picked" @click="another">Another viewer</el-button>
      <el-button v-if="picked" link @click="begin">Start again</el-button>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" :change="change" :objection="objection" :said="['seed']" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 8px 14px;
  font-size: 13px;
}
.pick {
  display: flex;
  gap: 10px;
  align-items: center;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
