import { testsShown } from '@verdict/core/road';
import { watchDebounced } from '@vueuse/core';
import type { Ref } from 'vue';
import { useLooks } from '../../stores/looks.js';
import { useStudy } from '../../stores/study.js';
import type { About, Keepable } from './use-keeping.js';

/** A result counts as viewed after this time in milliseconds, not while something is dragged. */
const LOOKED_AT = 700;

/** Display settings and the seed do not make another question. */
const SAME_QUESTION = new Set(['seed', 'replicates', 'column']);

async function digestOf(asked: unknown): Promise<string> {
  const bytes = new TextEncoder().encode(JSON.stringify(asked));
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(hash, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Notes the whole results of a stage as looked at, once they have stood for a moment. */
export function useLooking(shown: Ref<Keepable[]>, subject: Ref<About | null>): void {
  const store = useStudy();
  const looks = useLooks();
  async function note({ analysis, request, result }: Keepable, of: About): Promise<void> {
    const { study } = store;
    if (!study || store.ruled) return;
    const asked = Object.entries(request ?? {}).filter(([key]) => !SAME_QUESTION.has(key));
    const question = [analysis.id, of.column, of.parts ?? null, asked.sort(([a], [b]) => (a < b ? -1 : 1))];
    const digest = await digestOf(question);
    await looks.note(study.id, { digest, analysis: analysis.id, column: of.column, tests: testsShown(result) });
  }
  watchDebounced(
    [shown, subject],
    ([now, of]) => {
      if (!of) return;
      for (const one of now) if (one.whole && one.request) void note(one, of);
    },
    { debounce: LOOKED_AT, immediate: true },
  );
}
