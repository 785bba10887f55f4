import type { Note } from '@verdict/core/road';
import { computed } from 'vue';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';
import { lanes } from '../../workers/analysis-pool.js';
import { useLongWork } from '../run/use-long-work.js';
import { useLooking } from '../evidence/use-looking.js';
import { useKeeping, type About } from '../evidence/use-keeping.js';
import type { AnyRun } from '../run/any-run.js';

export interface StageSettings {
  /** The runs of the stage as it stands, in the order in which their notes are said and their results kept. */
  runs: () => readonly AnyRun[];
  /** Those of them that are kept; all by default. */
  kept?: () => readonly AnyRun[];
  /** What the kept results are about; the subject by default, and nothing can be kept while it is null. */
  about?: () => About | null;
  /** False while the shown result must neither be kept nor submitted as a job; true by default. */
  mayLeave?: () => boolean;
}

/** The first of each text. */
const once = (notes: readonly Note[]) =>
  notes.filter((note, i) => notes.findIndex(({ text }) => text === note.text) === i);

const timeOf = (milliseconds: number) =>
  milliseconds < 1000 ? `${Math.max(1, Math.round(milliseconds))} ms` : `${(milliseconds / 1000).toFixed(1)} s`;

/** What the runs of a stage are together: notes, progress, time, stopping, and keeping by button or by the key K. */
export function useStage({ runs, kept = runs, about, mayLeave = () => true }: StageSettings) {
  const store = useStudy();
  const all = computed(() => runs());
  const notes = computed(() => once(all.value.flatMap((run) => run.notes.value)));
  /** 0 … 1 while anything is simulated, else null. */
  const progress = computed(() => {
    const shares = all.value.flatMap(({ progress: share, simulated }) =>
      share.value === null || !simulated.value ? [] : [share.value],
    );
    return shares.length ? Math.min(...shares) : null;
  });
  const stopped = computed(() => all.value.some((run) => run.stopped.value));
  const failed = computed(() => all.value.find((run) => run.failed.value)?.failed.value ?? null);
  /** Stops simulations only: a picture that is being computed would otherwise stay unfinished. */
  const stop = () => all.value.filter(({ simulated }) => simulated.value).forEach((run) => run.stop());
  const again = () => all.value.filter((run) => run.stopped.value || run.failed.value).forEach((run) => run.again());

  const time = computed(() => {
    if (all.value.some((run) => run.progress.value !== null) || all.value.every((run) => !run.result.value)) return '';
    const longest = timeOf(Math.max(...all.value.map((run) => run.milliseconds.value)));
    const workers = `${lanes} ${lanes === 1 ? 'worker' : 'workers'}`;
    return all.value.some((run) => run.simulated.value) ? `${longest} · ${workers}` : longest;
  });

  const keepable = computed(() =>
    kept().map(({ analysis, request, result, whole, whyNot }) => ({
      analysis,
      request: request.value,
      result: result.value,
      whole: whole.value && result.value !== null,
      none: whyNot.value !== null,
    })),
  );
  const subject = computed<About | null>(() => {
    if (about) return about();
    return store.subject && store.sample ? { column: store.subject.id, sample: store.sample } : null;
  });
  const keeping = useKeeping(keepable, subject);
  useLooking(keepable, subject);
  const canKeep = computed(
    () =>
      mayLeave() &&
      subject.value !== null &&
      !store.ruled &&
      keepable.value.every(({ whole }) => whole) &&
      !stopped.value,
  );
  useKeys({ k: () => mayLeave() && void keeping.keep() });

  const longWork = useLongWork(all, subject);
  const canHandOver = computed(() => mayLeave() && longWork.canHandOver.value);

  return {
    notes,
    progress,
    stopped,
    failed,
    stop,
    again,
    time,
    canKeep,
    ...longWork,
    canHandOver,
    mayLeave,
    ...keeping,
  };
}

export type StageRuns = ReturnType<typeof useStage>;
