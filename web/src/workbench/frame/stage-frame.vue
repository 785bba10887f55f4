<script setup lang="ts">
import type { Piece } from '@verdict/core/road';
import CautionList from '../../components/caution-list.vue';
import CautionNote from '../../components/caution-note.vue';
import FindingWords from '../../components/finding-words.vue';
import TermWords from '../../components/term-words.vue';
import { local } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';
import NoColumn from './no-column.vue';
import SetAsideDialog from '../set-aside/set-aside-dialog.vue';
import type { SettingAside } from '../set-aside/use-set-aside.js';
import type { StageRuns } from './use-stage.js';

/**
 * The page of a stage: the picture beside finding, cautions, figures and what to do; the method as sentences below. Its states
 * (no column, working, stopped, failed, not kept) are the same on every stage.
 */
withDefaults(
  defineProps<{
    runs: StageRuns;
    /** Without a column there is nothing to look at. */
    empty?: boolean;
    finding?: readonly Piece[];
    /** What follows the finding, in smaller words. */
    after?: string | null;
    /** Said before the notes of the runs. */
    cautions?: readonly string[];
    /** False where the results are no evidence for now. */
    keepable?: boolean;
    /** What the finding is called where it cannot be seen. */
    label?: string;
    aside?: SettingAside | null;
  }>(),
  { finding: () => [], after: null, cautions: () => [], keepable: true, label: 'Finding', aside: null },
);
const store = useStudy();
</script>

<template>
  <NoColumn v-if="empty" />
  <div v-else class="workbench">
    <slot name="above" />
    <div class="upper">
      <div id="picture" class="picture" tabindex="-1"><slot name="picture" /></div>
      <section id="finding" class="side" tabindex="-1" :aria-label="label">
        <div aria-live="polite">
          <FindingWords v-if="finding.length" :pieces="finding" terms />
          <p v-if="after" class="soft after"><TermWords :text="after" /></p>
          <slot name="words" />
        </div>
        <CautionList :texts="[...cautions, ...runs.notes.value.map(({ text }) => text)]" />
        <slot name="figures" />
        <CautionNote v-if="runs.failed.value" lead="Not finished" tone="wrong"
          >{{ runs.failed.value }} Nothing was lost.
          <el-button link @click="runs.again">Try again</el-button></CautionNote
        >
        <CautionNote v-if="runs.handingProblem.value" lead="Jobs" tone="wrong">{{
          runs.handingProblem.value
        }}</CautionNote>
        <CautionNote v-if="runs.problem.value" lead="Not kept" tone="wrong">{{ runs.problem.value }}</CautionNote>
        <div class="actions">
          <el-button
            v-if="keepable && runs.mayLeave()"
            type="primary"
            :loading="runs.keeping.value"
            :disabled="!runs.canKeep.value"
            @click="runs.keep()"
            >Keep as evidence <kbd>K</kbd></el-button
          >
          <slot name="actions" />
          <span v-if="runs.kept.value" class="soft" role="status">{{ runs.kept.value }}</span>
        </div>
        <slot name="after" />
      </section>
    </div>
    <section v-if="$slots.sentences" id="sentence" class="card method" tabindex="-1" aria-label="Method">
      <div class="sentences"><slot name="sentences" /></div>
      <div class="state soft">
        <template v-if="runs.progress.value !== null">
          <el-progress
            class="progress"
            :percentage="Math.floor(runs.progress.value * 100)"
            :stroke-width="8"
            aria-label="Simulation"
          />
          <span v-if="runs.onServer.value" title="It continues when this page is closed.">on the server</span>
          <span v-else-if="runs.remaining.value">{{ runs.remaining.value }}</span>
          <el-button v-if="runs.canHandOver.value" link :loading="runs.handing.value" @click="runs.handOver()"
            >Continue on the server</el-button
          >
          <el-button link @click="runs.stop">Stop</el-button>
        </template>
        <template v-else-if="runs.stopped.value"
          >stopped <el-button link @click="runs.again">Continue</el-button></template
        >
        <template v-else>{{ local(runs.time.value ?? '') }}</template>
      </div>
    </section>
    <slot name="below" />
    <SetAsideDialog
      v-if="aside && !store.ruled"
      :open="aside.rows.value.length > 0"
      :what="aside.words.value"
      :many="aside.rows.value.length > 1"
      :leaving="aside.leaving.value"
      :usual="aside.often.value"
      @done="aside.finish"
      @leave="aside.leave"
    />
  </div>
</template>

<style scoped>
.workbench {
  display: flex;
  flex-direction: column;
  gap: 12px;
  height: 100%;
}
.upper {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(280px, 436fr);
  flex: 1;
  gap: 18px;
  min-height: 340px;
}
.picture {
  display: grid;
  min-height: 0;
}
.side {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  padding-top: 2px;
  overflow: auto;
}
.after {
  margin: 6px 0 0;
  font-size: 13px;
}
.actions {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  margin-top: auto;
  padding-top: 6px;
  background: var(--paper);
}
.actions :deep(.el-button + .el-button) {
  margin-left: 0;
}
.actions kbd {
  margin-left: 8px;
}
.method {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 7px 16px;
}
.sentences {
  flex: 1;
}
/* Beside the sentence, not at its cost: words and buttons go below the progress. */
.state {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
  justify-content: flex-end;
  max-width: 300px;
  font-size: 13px;
  white-space: nowrap;
}
.progress {
  width: 160px;
}
@media (max-width: 900px) {
  .workbench {
    height: auto;
  }
  .upper {
    grid-template-columns: minmax(0, 1fr);
  }
  .method {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
