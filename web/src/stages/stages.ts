/** The stages that stand, in the order of the work; the keys 1, 2, 3 … go to them. */
export const STAGES = [
  { name: 'readings', title: 'Readings' },
  { name: 'fit', title: 'Fit' },
  { name: 'verdict', title: 'Verdict' },
] as const;
