<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { ElMessage } from 'element-plus';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { formatTime, local } from '../language/language.js';
import WordMenu from '../components/word-menu.vue';
import { saveFile } from '../files/save-file.js';
import { useStudy } from '../stores/study.js';
import SheetDocument from './sheet-document.vue';
import { useSheet } from './use-sheet.js';
import './sheet.css';

/** The sheet on its own: read, printed, saved. It shows what will be printed, on paper. */
const store = useStudy();
const paper = ref<HTMLElement>();
const { sheet, pictures, drawn, pngs, withReadings, onSheet } = useSheet(paper);
const busy = ref(false);
const { height } = useElementSize(paper);
/** What an A4 page holds of it, at the scale of the page here. */
const PAGE = 1_000;
const pages = computed(() => Math.max(1, Math.ceil(height.value / PAGE)));

const FORMS = [
  { id: 'html', title: 'as a page (.html), all in one file' },
  { id: 'docx', title: 'as a document (.docx)' },
  { id: 'json', title: 'as data (.json)' },
];
const TYPES = {
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  html: 'text/html',
  json: 'application/json',
} as const;

async function contentOf(form: keyof typeof TYPES): Promise<BlobPart> {
  const { value: made } = sheet;
  if (form === 'html') return (await import('./to-html.js')).sheetHtml(made!, pictures.value);
  if (form === 'docx') return (await import('./to-docx.js')).sheetDocx(made!, await pngs());
  return (await import('./to-json.js')).sheetJson(made!, store.study!, onSheet.value);
}
async function save(form: keyof typeof TYPES): Promise<void> {
  busy.value = true;
  try {
    saveFile(`${sheet.value!.title}.${form}`, await contentOf(form), TYPES[form]);
  } catch (error) {
    ElMessage.error(`The report could not be saved: ${error instanceof Error ? error.message : String(error)}`);
  }
  busy.value = false;
}
const print = () => window.print();
</script>

<template>
  <div class="view">
    <div class="bar no-print" role="toolbar" aria-label="Report">
      <RouterLink :to="{ name: 'verdict', params: { id: store.study!.id } }">Back to the verdict</RouterLink>
      <span class="room"></span>
      <el-checkbox v-model="withReadings">with the table of readings</el-checkbox>
      <span class="soft" role="status">{{
        drawn ? `about ${pages} ${pages === 1 ? 'page' : 'pages'}` : 'drawing …'
      }}</span>
      <WordMenu title="Save" :items="FORMS" @choose="(form) => save(form as 'html')" />
      <el-button type="primary" :loading="busy" @click="print">Print, or save as PDF</el-button>
    </div>
    <div class="desk" tabindex="0" role="region" aria-label="The report on paper">
      <div ref="paper" class="paper on-paper">
        <SheetDocument v-if="sheet" :sheet="sheet" :pictures="pictures" :time="formatTime" :figures="local" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.view {
  display: flex;
  flex-direction: column;
  gap: 10px;
  height: 100%;
  padding-top: 10px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  font-size: 13px;
}
.room {
  flex: 1;
}
.desk {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.paper {
  max-width: 794px;
  margin: 0 auto;
  border: 1px solid var(--line);
  padding: 44px 60px;
  background: #fff;
}
@media (max-width: 900px) {
  .view {
    height: auto;
  }
  .paper {
    padding: 20px 16px;
  }
}
@media print {
  .view,
  .desk {
    display: block;
    height: auto;
    overflow: visible;
    padding: 0;
  }
  .paper {
    max-width: none;
    border: 0;
    padding: 0;
  }
}
</style>
