import type { ComputedRef } from 'vue';
import type { Run } from './use-run.js';

/** A run of whatever request and result, as the frame looks at it. */
export type AnyRun = Pick<
  Run,
  'notes' | 'whyNot' | 'progress' | 'stopped' | 'failed' | 'whole' | 'milliseconds' | 'simulated' | 'stop' | 'again'
> &
  Partial<Pick<Run, 'estimate' | 'job'>> & {
    analysis: Pick<Run['analysis'], 'id' | 'version' | 'name'>;
    request: ComputedRef<object | null>;
    result: ComputedRef<object | null>;
  };
