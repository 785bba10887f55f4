<script setup lang="ts">
import { causeWords, extremeRows, outliersAnalysis } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import { useStudy } from '../../../stores/study.js';
import MethodSentence from '../../../workbench/method-sentence.vue';
import SetAsideList from '../../../workbench/set-aside-list.vue';
import StageFrame from '../../../workbench/stage-frame.vue';
import { useSetAside } from '../../../workbench/use-set-aside.js';
import ExtremesTable from './extremes-table.vue';
import FarPicture from './far-picture.vue';
import RulesTable from './rules-table.vue';
import { PANELS, useFar } from './use-far.js';
import WithoutTable from './without-table.vue';

/** Which readings lie too far out: their list beside the picture, every rule, what changes without them. */
const store = useStudy();
const far = useFar();
const { column, name, sample, cautions, run, stage, panel, named } = far;
const { result } = run;
const finding = computed(() => (result.value ? outliersAnalysis.finding(result.value) : []));
const cause = computed(() => result.value && causeWords(result.value));
const rows = computed(() => (result.value ? extremeRows(result.value, named.value) : []));
const picture = ref<InstanceType<typeof FarPicture>>();
const pointed = ref<number | null>(null);
const asideHere = computed(() => (store.study?.setAside ?? []).filter((one) => one.column === column.value?.id));

const aside = useSetAside({
  column,
  sample,
  pointed: () => (pointed.value === null ? [] : [pointed.value]),
  locked: () => false,
});
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :after="cause" :cautions="cautions" :aside="aside">
    <template #picture>
      <FarPicture
        ref="picture"
        :far="far"
        :can-set-aside="!store.ruled"
        @pointed="(row) => (pointed = row)"
        @aside="(row) => aside.ask([row])"
      />
    </template>
    <template #figures>
      <template v-if="result">
        <el-segmented v-model="panel" size="small" aria-label="What is told" :options="[...PANELS]" />
        <ExtremesTable
          v-if="panel === 'far'"
          :rows="rows"
          :pointed="pointed"
          :can-set-aside="!store.ruled"
          @point="(row) => picture?.point(row)"
          @aside="(row) => aside.ask([row])"
          @table="far.showInTable"
        />
        <RulesTable v-else-if="panel === 'rules'" :result="result" @choose="(rule) => run.address.set('rule', rule)" />
        <WithoutTable v-else :result="result" />
      </template>
      <details v-if="asideHere.length && column" class="aside">
        <summary>{{ asideHere.length }} set aside</summary>
        <SetAsideList :column-id="column.id" :readings="asideHere" @go="(row) => far.showInTable([row])" />
      </details>
    </template>
    <template #actions>
      <el-button v-if="named.length && !store.ruled" @click="aside.ask(named)"
        >Set {{ named.length === 1 ? 'it' : `all ${named.length}` }} aside …</el-button
      >
      <el-button
        v-if="asideHere.length && far.ruleHasLevel.value && !store.ruled"
        title="Puts them back, and the generalised ESD looks for all of them together"
        @click="far.askTogether"
        >Put back and ask together</el-button
      >
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" />
    </template>
  </StageFrame>
</template>

<style scoped>
.aside {
  font-size: 13px;
}
</style>
