import { screenAnalysis } from '@verdict/core/analyses';
import { useRun } from '../../../workbench/run/use-run.js';
import { useSeveral } from '../../../workbench/parts/use-several.js';
import { useStage } from '../../../workbench/frame/use-stage.js';

/** Many columns or groups, tested for normality at once. */
export function useMany() {
  const { sample, asked, about, ...several } = useSeveral();
  const run = useRun(screenAnalysis, sample, { name: 'many', fixed: asked });
  const stage = useStage({ runs: () => [run], about });
  return { ...several, run, stage, open: (name: string) => several.open('fit', name) };
}
