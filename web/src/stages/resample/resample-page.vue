<script setup lang="ts" generic="Request extends Settings, Result extends Shown & { what: string; unit: string }">
import type { Analysis, Piece, NamedParts, Settings } from '@verdict/core/road';
import { computed, ref } from 'vue';
import type { Panels } from '../../charts/picture.js';
import type { Chosen } from '../../charts/pictures/resample.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../workbench/picture/picture-card.vue';
import type { Rows } from '../../workbench/picture/rows.js';
import StageFrame from '../../workbench/frame/stage-frame.vue';
import type { Run, Shown } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import AskedEntry from './asked-entry.vue';
import OneReplicate from './one-replicate.vue';
import ReplicateList from './replicate-list.vue';
import ReplicateSteps from '../../workbench/sentence/replicate-steps.vue';
import { saveReplicates } from '../../workbench/run/save-replicates.js';
import type { Asked } from './use-asked.js';
import { useReplicate } from './use-replicate.js';

/** What redrawing and shuffling share: the question, the growing picture, and the replicate behind a mark. */
const props = defineProps<{
  asked: Asked;
  run: Run<Request, Result>;
  analysis: Pick<Analysis<Request, Result>, 'subject' | 'request'>;
  sentence: NamedParts<'lead' | 'rest' | 'how'>;
  by: 'redrawing' | 'shuffling' | 'counting';
  /** How many replicates there are. */
  count: number;
  /** How many are asked for; null for all arrangements. */
  steps: number | null;
  all?: boolean;
  finding: readonly Piece[];
  after: string | null;
  title: string;
  draw: (chosen: Chosen | null) => Panels | null;
  table: (() => Rows) | null;
  /** In which orders the replicates stand. */
  orders: 'first' | 'all';
  heads: { group: string; now: string };
}>();
const emit = defineEmits<{ set: [count: number | null] }>();
const { run, asked } = props;
const { result, request } = run;
const stage = useStage({ runs: () => [run as never], about: asked.about });
const MOST_ONE_BY_ONE = 200;
const { number, result: replicate } = useReplicate({
  ...{ request, sample: asked.sample },
  by: () => props.by,
  count: () => props.count,
  few: () => props.by !== 'counting' && props.count <= MOST_ONE_BY_ONE,
});
const chosen = computed<Chosen | null>(() =>
  replicate.value && replicate.value.number === number.value
    ? { number: replicate.value.number, statistic: replicate.value.statistic }
    : null,
);
const panels = computed(() => (result.value ? props.draw(chosen.value) : null));
const words = computed(() => `${props.title}. ${props.finding.map(({ text }) => text).join('')}`);
const values = computed(() => {
  if (request.value) return request.value as object;
  const read = props.analysis.request.safeParse(run.address.settings.value);
  return read.success ? (read.data as object) : undefined;
});
const subject = computed(() => {
  const now = values.value as Settings | undefined;
  if (asked.typed.value && !request.value) return 'typed counts';
  return now && request.value ? (props.analysis.subject?.(now as never) ?? '') : asked.looked.value.name;
});
const statistic = computed(() => asked.statistic.value);
const inPairs = computed(() => statistic.value === 'correlation' || statistic.value === 'slope');
const axis = computed(() => {
  const { name } = asked.looked.value;
  const unit = result.value?.unit;
  return unit ? `${name}, ${unit}` : name;
});
const whyNot = computed(() => {
  const { problem } = asked.counts.fault.value;
  return asked.typed.value && problem ? problem : run.whyNot.value;
});
const hint = computed(() =>
  props.by === 'counting' ? 'Point at a bar to see one of its permutations.' : 'Point at a mark to see its replicate.',
);
const saving = ref(false);
async function save(): Promise<void> {
  if (!request.value || !asked.sample.value) return;
  saving.value = true;
  const job = { id: run.analysis.id, request: { ...(request.value as object) }, sample: asked.sample.value };
  await saveReplicates(job, { name: props.title, count: props.count, orders: props.orders }).finally(
    () => (saving.value = false),
  );
}
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :after="after" :keepable="!!result">
    <template #above>
      <AskedEntry :asked="asked" :run="run" :sentence="sentence" :subject="subject" :values="values" />
    </template>
    <template #picture>
      <PictureCard
        label="Picture of the replicates"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="whyNot"
        :mend="!asked.typed.value && !/^(?:Enter|Choose) /.test(whyNot ?? '')"
        :failed="run.failed.value !== null"
        :rows="table"
        :hint="hint"
        @pointed="(_, bar) => bar !== null && (number = bar)"
      >
        <template #choices>
          <ReplicateSteps :count="steps" :all="all" @set="(count) => emit('set', count)" />
        </template>
        <template v-if="replicate && number !== null" #below>
          <OneReplicate v-model="number" :result="replicate" :in-pairs="inPairs" :of="axis" :count="count" />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <ReplicateList v-if="replicate && number !== null && !asked.typed.value" :result="replicate" :heads="heads" />
      <slot />
    </template>
    <template #actions>
      <el-button v-if="count > 0 && run.whole.value" link :loading="saving" @click="save"
        >Save the replicates</el-button
      >
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="sentence.how" :subject="subject" :values="values" />
    </template>
  </StageFrame>
</template>
