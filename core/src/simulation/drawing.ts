import { nextOpenUnit, type StreamState } from '../random/stream.js';
import { pickDrawn } from '../resampling/draw.js';
import { moved, type Move } from './laws.js';
import { familyLaw, isColumn, placing, type Mixed, type Population } from './population.js';

/** Draws samples of n from a population into a block, one after the other. */
export interface Drawer {
  /** Fills the block, whose length is a multiple of n. */
  fill(state: StreamState, block: Float64Array): void;
  /** 1 for each contaminated reading of the last block; null if there are none. */
  strange: Uint8Array | null;
}

type Fill = (state: StreamState, block: Float64Array) => void;

/** Readings of a column, drawn with replacement. */
function withReplacement(values: Float64Array, most: number): Fill {
  const picks = new Int32Array(most);
  return (state, block) => {
    const own = picks.subarray(0, block.length);
    pickDrawn(state, values.length, own);
    for (let i = 0; i < own.length; i++) block[i] = values[own[i]!]!;
  };
}

/** Draws without replacement: the first n places of a shuffle (Fisher & Yates 1938, from the front), which is then undone. */
function withoutReplacement(values: Float64Array, n: number): Fill {
  const { length } = values;
  const order = Int32Array.from(values.keys());
  const others = new Int32Array(n);
  return (state, block) => {
    for (let from = 0; from < block.length; from += n) {
      for (let i = 0; i < n; i++) {
        const other = i + Math.floor(nextOpenUnit(state) * (length - i));
        const found = order[other]!;
        order[other] = order[i]!;
        order[i] = found;
        others[i] = other;
        block[from + i] = values[found]!;
      }
      for (let i = n - 1; i >= 0; i--) {
        const other = others[i]!;
        const found = order[other]!;
        order[other] = order[i]!;
        order[i] = found;
      }
    }
  };
}

/** The contaminated readings and their values. */
function mixing({ share, from }: Mixed, most: number): { strange: Uint8Array; mix: Fill } {
  const strange = new Uint8Array(most);
  const others = 'move' in from ? null : { law: familyLaw(from), values: new Float64Array(most) };
  return {
    strange,
    mix(state, block) {
      let count = 0;
      for (let i = 0; i < block.length; i++) count += strange[i] = nextOpenUnit(state) < share ? 1 : 0;
      if (others) others.law.sample(state, others.values.subarray(0, count));
      for (let i = 0, k = 0; i < block.length; i++) {
        if (strange[i] === 0) continue;
        block[i] = others ? others.values[k++]! : moved(block[i]!, (from as { move: Move }).move);
      }
    },
  };
}

/**
 * Draws samples of n; a block holds up to `most` readings. Shift and rounding that affect all readings of a column alike are applied before drawing.
 */
export function createDrawer({ base, mixed, move, step }: Population, n: number, most: number): Drawer {
  const before = mixed === null && isColumn(base);
  const place = placing(move, step);
  const draw = ((): Fill => {
    if (!isColumn(base)) {
      const law = familyLaw(base);
      return (state, block) => law.sample(state, block);
    }
    const readings = base.values instanceof Float64Array ? base.values : new Float64Array(base.values);
    const values = before && (move || step !== null) ? readings.map(place) : readings;
    return base.replacement ? withReplacement(values, most) : withoutReplacement(values, n);
  })();
  const odd = mixed && mixing(mixed, most);
  return {
    strange: odd?.strange ?? null,
    fill(state, block) {
      draw(state, block);
      odd?.mix(state, block);
      if (before || (!move && step === null)) return;
      for (let i = 0; i < block.length; i++) block[i] = place(block[i]!);
    },
  };
}
