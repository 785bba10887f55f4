/** The stages that stand, in the order of the work; the keys 1, 2, 3 … go to them. `keeps` names the analyses whose evidence is theirs. */
export const STAGES = [
  { name: 'readings', title: 'Readings', keeps: [] },
  {
    name: 'shape',
    title: 'Shape',
    keeps: ['describe', 'histogram', 'box', 'stem-and-leaf', 'empirical', 'dots', 'in-order', 'shares'],
  },
  { name: 'fit', title: 'Fit', keeps: ['probability-plot', 'normality'] },
  { name: 'verdict', title: 'Verdict', keeps: [] },
] as const satisfies readonly { name: string; title: string; keeps: readonly string[] }[];
