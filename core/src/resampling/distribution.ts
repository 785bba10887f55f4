/**
 * The bins of a replicate distribution: of equal width from a centre outwards, so that bins at the same distance on either side mirror each other.
 */
export interface Frame {
  centre: number;
  width: number;
  /** Values nearer than this are ties: one on the edge of two bins counts outwards. */
  tie: number;
  /** So many bins are in view on either side of the centre; all that there are up to 400, where it is left out. */
  reach?: number;
  /** Nothing can be greater: what is counts into the bin below. */
  greatest?: number;
  /** True where they are always binned, however few values there are. */
  binned?: true;
}

/** A distribution of replicates. */
export interface Distribution {
  /** The values that there are, where these are few; the edges of the bins otherwise, one more than there are counts. */
  values: number[] | null;
  edges: number[];
  counts: number[];
  /** A replicate of each, by its number from 1. */
  examples: number[];
  /** Beyond the outermost bins, where these would be too many. */
  below: number;
  above: number;
}

/** Chunks of replicates: the statistic is the first of every `stride` numbers. */
export interface Replicates {
  chunks: readonly Float64Array[];
  stride: number;
}

const MOST_VALUES = 120;
/** Across the range of a pilot; those of ten thousand reach further. */
const BINS = 32;
const MOST_IN_VIEW = 160;
const MOST_BINS = 400;

/**
 * The bins for later replicates, from those of a pilot run and whatever else must be visible. With `edge`, the distance at which the tails begin, it
 * is an edge of bins: replicates in the tails are distinguished from the others.
 */
export function frameOf(
  pilot: readonly number[],
  { centre, also = [], edge = 0, tie }: { centre: number; also?: readonly number[]; edge?: number; tie: number },
): Frame {
  const rangeOf = (values: readonly number[]) =>
    values.length === 0 ? 0 : values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b));
  // What is far away from all replicates must not make their bins wide.
  const wanted =
    Math.max(rangeOf(pilot) / BINS, rangeOf([...pilot, ...also, centre]) / MOST_IN_VIEW) ||
    Math.abs(centre) / BINS ||
    1;
  const steps = Math.round(edge / wanted);
  return { centre, width: steps > 0 ? edge / steps : wanted, tie };
}

/** Bins that end where nothing can be greater end there but for rounding. */
const EDGE = 1e-9;

/** The bin of a value: 0 and on from the centre upwards, −1 and on downwards. */
function binOf(value: number, { centre, width, tie, greatest = Infinity }: Frame): number {
  if (value >= greatest) return Math.ceil((greatest - centre) / width - EDGE) - 1;
  const far = Math.floor((Math.abs(value - centre) + tie) / width);
  return value < centre ? -1 - far : far;
}

interface Piles {
  counts: Map<number, number>;
  /** The place in the chunk of the first of each. */
  firsts: Map<number, number>;
}

/** What is known of a chunk is worked out once: a picture that grows asks again and again. */
const binned = new WeakMap<Float64Array, { frame: Frame; piles: Piles }>();
const valued = new WeakMap<Float64Array, { frame: Frame; piles: Piles | 'many' }>();

function pileUp(
  chunk: Float64Array,
  stride: number,
  keyOf: (value: number) => number,
  most = Infinity,
): Piles | 'many' {
  const piles: Piles = { counts: new Map(), firsts: new Map() };
  for (let i = 0; i < chunk.length; i += stride) {
    const value = chunk[i]!;
    if (Number.isNaN(value)) continue;
    const key = keyOf(value);
    const count = piles.counts.get(key);
    if (count === undefined) {
      if (piles.counts.size === most) return 'many';
      piles.firsts.set(key, i / stride);
    }
    piles.counts.set(key, (count ?? 0) + 1);
  }
  return piles;
}

function valuesIn(chunk: Float64Array, stride: number, frame: Frame): Piles | 'many' {
  const known = valued.get(chunk);
  if (known && known.frame.tie === frame.tie && known.frame.centre === frame.centre) return known.piles;
  const { centre, tie } = frame;
  const step = Math.max(tie, Number.MIN_VALUE) * 4;
  const piles = pileUp(chunk, stride, (value) => Math.round((value - centre) / step), MOST_VALUES);
  valued.set(chunk, { frame, piles });
  return piles;
}

function binsIn(chunk: Float64Array, stride: number, frame: Frame): Piles {
  const known = binned.get(chunk);
  const same = (key: keyof Frame) => known?.frame[key] === frame[key];
  if (known && same('width') && same('centre') && same('tie') && same('greatest')) return known.piles;
  const piles = pileUp(chunk, stride, (value) => binOf(value, frame)) as Piles;
  binned.set(chunk, { frame, piles });
  return piles;
}

/** The distribution over all chunks, the examples by their number among all replicates. */
function together({ chunks, stride }: Replicates, pilesOf: (chunk: Float64Array) => Piles | 'many'): Piles | 'many' {
  const all: Piles = { counts: new Map(), firsts: new Map() };
  let before = 0;
  for (const chunk of chunks) {
    const piles = pilesOf(chunk);
    if (piles === 'many') return 'many';
    for (const [key, count] of piles.counts) {
      all.counts.set(key, (all.counts.get(key) ?? 0) + count);
      if (!all.firsts.has(key)) all.firsts.set(key, before + piles.firsts.get(key)! + 1);
    }
    before += chunk.length / stride;
  }
  return all;
}

/** The distribution of the replicates: by distinct values if these are few, else in bins. Undefined ones are left out. */
export function distributionOf(replicates: Replicates, frame: Frame): Distribution {
  const { chunks, stride } = replicates;
  const values = frame.binned ? 'many' : together(replicates, (chunk) => valuesIn(chunk, stride, frame));
  if (values !== 'many' && values.counts.size <= MOST_VALUES) return byValues(values, chunks, stride);
  return inBins(together(replicates, (chunk) => binsIn(chunk, stride, frame)) as Piles, frame);
}

function byValues({ counts, firsts }: Piles, chunks: readonly Float64Array[], stride: number): Distribution {
  const keys = [...counts.keys()].sort((a, b) => a - b);
  const valueAt = (number: number) => {
    let at = (number - 1) * stride;
    for (const chunk of chunks) {
      if (at < chunk.length) return chunk[at]!;
      at -= chunk.length;
    }
    return NaN;
  };
  const examples = keys.map((key) => firsts.get(key)!);
  return {
    values: examples.map(valueAt),
    edges: [],
    counts: keys.map((key) => counts.get(key)!),
    examples,
    below: 0,
    above: 0,
  };
}

function inBins({ counts, firsts }: Piles, { centre, width, reach = Infinity }: Frame): Distribution {
  const keys = [...counts.keys()].sort((a, b) => a - b);
  const found: Distribution = { values: null, edges: [], counts: [], examples: [], below: 0, above: 0 };
  if (keys.length === 0) return found;
  // A few that lie without end far out are told, not drawn.
  let [low, high] = [Math.max(-reach, keys[0]!), Math.min(reach - 1, keys.at(-1)!)];
  if (high - low >= MOST_BINS) {
    const middle = keys[keys.length >> 1]!;
    low = Math.max(low, middle - MOST_BINS / 2);
    high = Math.min(high, low + MOST_BINS - 1);
  }
  for (let bin = low; bin <= high; bin++) {
    found.edges.push(centre + bin * width);
    found.counts.push(counts.get(bin) ?? 0);
    found.examples.push(firsts.get(bin) ?? 0);
  }
  found.edges.push(centre + (high + 1) * width);
  for (const key of keys) {
    if (key < low) found.below += counts.get(key)!;
    if (key > high) found.above += counts.get(key)!;
  }
  return found;
}

/** The statistics of all replicates that have one, one after the other. */
export function statisticsOf({ chunks, stride }: Replicates): Float64Array {
  const all = new Float64Array(chunks.reduce((sum, chunk) => sum + chunk.length / stride, 0));
  let n = 0;
  for (const chunk of chunks)
    for (let i = 0; i < chunk.length; i += stride) if (!Number.isNaN(chunk[i]!)) all[n++] = chunk[i]!;
  return all.subarray(0, n);
}
