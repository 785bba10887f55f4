import { claimScreenAnalysis } from '@verdict/core/analyses';
import type { StudyColumn } from '@verdict/contract';
import { useStudy } from '../../../stores/study.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useSeveral } from '../../../workbench/parts/use-several.js';
import { useStage } from '../../../workbench/frame/use-stage.js';

const isClaimed = ({ claimedMean, claimedSd, target }: StudyColumn) => (claimedMean ?? claimedSd ?? target) !== null;
/** What its card claims of a column. */
const claimOn = ({ claimedMean, claimedSd, target }: StudyColumn) => {
  const mean = claimedMean ?? target;
  return { ...(mean === null ? {} : { mean }), ...(claimedSd === null ? {} : { sd: claimedSd }) };
};

/** Many columns or groups, each against what its card claims. */
export function useMany() {
  const store = useStudy();
  const columns = () => store.study?.columns ?? [];
  const { sample, asked, about, ...several } = useSeveral({
    all: columns,
    usual: () => {
      const claimed = columns().filter(isClaimed);
      return claimed.length > 0 ? claimed : columns().filter(({ kind }) => kind === 'measure');
    },
  });
  const run = useRun(claimScreenAnalysis, sample, {
    name: 'claim-many',
    fixed: () => {
      const of = asked();
      return of && { ...of, claims: Object.fromEntries(columns().map((column) => [column.name, claimOn(column)])) };
    },
  });
  const stage = useStage({ runs: () => [run], about });
  return { ...several, run, stage, open: (name: string) => several.open('claims', name) };
}
