import type { Checked, StudyColumn } from '@verdict/contract';
import { PLAIN_FORMAT, rewritten } from '@verdict/core/readings';
import { useDebounceFn } from '@vueuse/core';
import { computed, nextTick, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client.js';
import { openWords } from '../path/questions.js';
import { useStanding } from '../path/use-standing.js';
import { useEvidence } from '../stores/evidence.js';
import { useStudy } from '../stores/study.js';
import { useKeptPictures } from '../workbench/evidence/use-kept-pictures.js';
import { useStale } from '../workbench/evidence/use-stale.js';
import { sheetOf } from './sheet-of.js';
import { sheetPicture, sheetPng } from './sheet-pictures.js';
import type { SheetPicture, SheetPictures, SheetTable } from './sheet.js';
import type { DocumentPicture } from './to-docx.js';
import { useSheetPieces } from './use-sheet-pieces.js';

/** Rows that an appendix prints: more are a book, and stand in the file of the readings. */
const MOST_ROWS = 2_000;
/** Columns that an A4 page is wide enough for. */
const MOST_COLUMNS = 8;

/** A cell in the notation of the sheet: its digits as written, with a decimal point. */
const plainCell = (column: StudyColumn | null | undefined, text: string) =>
  !column || column.kind === 'label' || column.derivation ? text : rewritten(text, column, PLAIN_FORMAT);

/** The sheet of the open study with its pictures, drawn on `paper`. */
export function useSheet(paper: Ref<HTMLElement | undefined>) {
  const store = useStudy();
  const evidence = useEvidence();
  const { onSheet, leftOut, standing, weighed } = useSheetPieces();
  const { standing: steps } = useStanding();
  const { drawOf, ready } = useKeptPictures(onSheet);
  const withReadings = ref(false);

  const appendix = computed<SheetTable | null>(() => {
    const { study } = store;
    if (!withReadings.value || !study) return null;
    // The subject first: it is what the sheet is about.
    const columns = [...study.columns].sort((a, b) => Number(b.id === study.subject) - Number(a.id === study.subject));
    const shown = columns.slice(0, MOST_COLUMNS);
    const texts = shown.map((column) =>
      store
        .textsOf(column.id)
        .slice(0, MOST_ROWS)
        .map((text) => plainCell(column, text)),
    );
    const aside = new Set(study.setAside.map(({ column, row }) => `${column}/${row}`));
    const rows = Array.from({ length: Math.min(MOST_ROWS, study.rowCount) }, (_, i) => [
      String(i + 1),
      ...shown.map(({ id }, k) => `${texts[k]![i] ?? ''}${aside.has(`${id}/${i + 1}`) ? ' (set aside)' : ''}`),
    ]);
    const cut = [
      study.rowCount > MOST_ROWS ? `the first ${MOST_ROWS} of ${study.rowCount} rows` : '',
      columns.length > MOST_COLUMNS ? `${MOST_COLUMNS} of ${columns.length} columns` : '',
    ].filter(Boolean);
    const heads = ['row', ...shown.map(({ name, unit }) => (unit ? `${name} (${unit})` : name))];
    const numeric = [false, ...shown.map(({ kind }) => kind !== 'label')];
    return { title: `Readings${cut.length ? `: ${cut.join(', ')}` : ''}`, heads, numeric, rows };
  });

  /** The record is checked again after every entry. */
  const checked = shallowRef<Checked | null>(null);
  const check = useDebounceFn(async () => {
    const { study } = store;
    if (!study) return;
    const found = await api.auditStudy(study.id).catch(() => null);
    if (store.study?.id === study.id) checked.value = found;
  }, 200);
  watch([() => store.study?.id, () => store.study?.revision, () => evidence.items], () => void check(), {
    immediate: true,
  });

  const sheet = computed(() => {
    const { study } = store;
    if (!study) return null;
    return sheetOf({
      ...{ study, standing: standing.value, onSheet: onSheet.value, leftOut: leftOut.value },
      ...{ stale: evidence.stale, sample: store.sample, weighed: weighed.value, notSeen: openWords(steps.value) },
      cellOf: (column, row) => plainCell(store.columnById(column), store.textsOf(column)[row - 1] ?? ''),
      ...{ appendix: appendix.value, checked: checked.value },
    });
  });

  /** By piece; null where there should be one and it cannot be drawn. */
  const pictures = shallowRef<SheetPictures>(new Map());
  /** True once every picture is drawn. */
  const drawn = ref(false);
  async function drawAll(): Promise<void> {
    drawn.value = false;
    await ready();
    await document.fonts.ready;
    const { value: on } = paper;
    if (!on) return;
    const made = new Map<string, SheetPicture | null>();
    for (const item of onSheet.value) {
      const draw = drawOf(item);
      if (draw) made.set(item.id, sheetPicture(item, draw, on));
    }
    pictures.value = made;
    await nextTick();
    drawn.value = true;
  }
  watch([onSheet, paper], () => void drawAll(), { immediate: true });

  /** The pictures for a form that takes no SVG. */
  async function pngs(): Promise<Map<string, DocumentPicture>> {
    const made = new Map<string, DocumentPicture>();
    for (const item of onSheet.value) {
      const draw = drawOf(item);
      const picture = pictures.value.get(item.id);
      if (draw && picture && paper.value)
        made.set(item.id, { ...(await sheetPng(draw, paper.value)), title: picture.title });
    }
    return made;
  }

  useStale();
  return { sheet, pictures, drawn, pngs, withReadings, onSheet };
}
