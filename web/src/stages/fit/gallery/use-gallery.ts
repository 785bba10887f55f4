import { galleryAnalysis } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { randomSeed } from '../random-seed.js';
import { useWhole } from '../use-whole.js';

export type GalleryAs = 'plot' | 'histogram';

/** Samples of known origin beside the readings: which one is large, whether as plots or histograms, drawn afresh on demand. */
export function useGallery() {
  const whole = useWhole();
  const run = useRun(galleryAnalysis, whole.sample, { name: 'known', fixed: whole.atLevel });
  const stage = useStage({ runs: () => [run], mayLeave: () => false });
  const address = useAddress();
  const as = computed<GalleryAs>({
    get: () => (address.textOf('as') === 'histogram' ? 'histogram' : 'plot'),
    set: (one) => void address.change({ as: one === 'plot' ? undefined : one }),
  });
  const kind = computed({
    get: () => address.textOf('kind') ?? 'normal',
    set: (one: string) => void address.change({ kind: one === 'normal' ? undefined : one }),
  });
  const drawAgain = () => run.address.set('seed', randomSeed());
  return { ...whole, run, stage, as, kind, drawAgain };
}
