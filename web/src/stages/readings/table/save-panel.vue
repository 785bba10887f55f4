<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { computed, ref } from 'vue';
import { api, ApiError } from '../../../api/client.js';
import CautionNote from '../../../components/caution-note.vue';
import { exported, FORMATS, type ExportFormat } from '../../../files/export-table.js';
import { saveFile } from '../../../files/save-file.js';
import { useStudy } from '../../../stores/study.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';

/** A copy of the readings as a file, or of the whole study. */
const props = defineProps<{ chosen: { columns: StudyColumn[]; rows: number[] }; shown: number[] }>();
const emit = defineEmits<{ leave: [] }>();
const store = useStudy();

const format = ref<ExportFormat>('csv');
const several = props.chosen.rows.length * props.chosen.columns.length > 1;
const what = ref<'all' | 'shown' | 'chosen'>(several ? 'chosen' : 'all');
const withAside = ref(true);
const problem = ref('');
const busy = ref(false);

const formats = (Object.keys(FORMATS) as ExportFormat[]).map((id) => ({ value: id, text: FORMATS[id].title }));
const title = computed(() => store.study?.name || 'readings');
const everything = computed(() => Array.from({ length: store.study?.rowCount ?? 0 }, (_, i) => i + 1));
const rows = computed(() =>
  what.value === 'chosen' ? props.chosen.rows : what.value === 'shown' ? props.shown : everything.value,
);
const columns = computed(() => (what.value === 'chosen' ? props.chosen.columns : (store.study?.columns ?? [])));

async function guarded(work: () => Promise<void>): Promise<void> {
  busy.value = true;
  problem.value = '';
  try {
    await work();
    emit('leave');
  } catch (error) {
    problem.value = error instanceof ApiError ? error.problem.detail : String(error);
  } finally {
    busy.value = false;
  }
}
const save = () =>
  guarded(async () => {
    const aside = new Map((store.study?.setAside ?? []).map(({ column, row, reason }) => [`${column}/${row}`, reason]));
    const wanted = {
      columns: columns.value,
      texts: store.textsOf,
      rows: rows.value,
      aside,
      withAside: withAside.value,
    };
    const { ending, type } = FORMATS[format.value];
    saveFile(`${title.value}.${ending}`, await exported(format.value, title.value, wanted), type);
  });
const saveStudy = () =>
  guarded(async () => {
    if (!(await store.drained())) throw new Error('Some changes are not saved yet. Save the study when they are.');
    const file = await api.saveStudy(store.study!.id);
    saveFile(`${title.value}.verdict.json`, file, 'application/json');
  });
</script>

<template>
  <section class="card side-panel" aria-label="Save a copy" @keydown.esc="emit('leave')">
    <h2>Save a copy</h2>
    <p class="sentence">
      Save
      <SentenceChoice
        v-model="what"
        aria-label="What to save"
        :options="[
          { value: 'all', text: 'all rows and columns' },
          ...(shown.length !== everything.length || what === 'shown'
            ? [{ value: 'shown', text: `the ${shown.length} rows as they are arranged` }]
            : []),
          ...(several
            ? [
                {
                  value: 'chosen',
                  text: `the chosen ${chosen.rows.length} rows of ${chosen.columns.length} ${chosen.columns.length === 1 ? 'column' : 'columns'}`,
                },
              ]
            : []),
        ]"
      />
      as
      <SentenceChoice v-model="format" aria-label="Format" :options="formats" />,
      <SentenceChoice
        v-model="withAside"
        aria-label="Set-aside readings"
        :options="[
          { value: true, text: 'with readings that are set aside, marked in a column' },
          { value: false, text: 'without readings that are set aside (empty cells)' },
        ]"
      />.
    </p>
    <p class="soft note">
      Cells are saved as written, derived columns in full precision. Text cells that start with = + − or @ get an
      apostrophe in front, so that no program reads them as formulas.
    </p>
    <CautionNote v-if="problem" lead="Not saved" tone="wrong">{{ problem }}</CautionNote>
    <div>
      <el-button type="primary" :loading="busy" :disabled="!rows.length" @click="save">Save the readings</el-button>
      <el-button @click="emit('leave')">Cancel</el-button>
    </div>
    <hr />
    <p class="soft note">
      The whole study is one file with readings, record, evidence and verdict. Any installation of Verdict can open it.
    </p>
    <div><el-button :loading="busy" @click="saveStudy">Save the whole study</el-button></div>
  </section>
</template>

<style scoped>
hr {
  width: 100%;
  margin: 4px 0;
  border: 0;
  border-top: 1px solid var(--line);
}
</style>
