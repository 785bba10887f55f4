import { createStream, nextOpenUnit, type StreamState } from '../random/stream.js';
import { arranging } from './arrangements.js';
import type { BootstrapDraws } from './bootstrap.js';
import { pickDrawn } from './draw.js';
import { arrangedFigure, type Shuffled } from './permutation.js';
import { evaluatorOf, isOfPairs } from './statistic.js';

/** The position of a replicate: its number from 1 in a run of chunks of one size that use consecutive random streams of a seed. */
export interface Placed {
  number: number;
  seed: number;
  chunkSize: number;
}

/** A bootstrap replicate: the indices of its readings in each group, their values, and its statistic. */
export interface DrawnReplicate {
  picks: Int32Array[];
  values: Float64Array[];
  statistic: number;
}

/** The stream of the chunk, and how many replicates come before in it. */
function placeOf({ number, seed, chunkSize }: Placed): { state: StreamState; before: number } {
  const chunk = Math.floor((number - 1) / chunkSize);
  return { state: createStream(seed, chunk), before: number - 1 - chunk * chunkSize };
}

/** One replicate, drawn again by itself: the same readings as in the run, from the same stream. */
export function bootstrapReplicate(input: BootstrapDraws, placed: Placed): DrawnReplicate {
  const { statistic, smooth, times } = input;
  const from = input.groups.map((readings) => new Float64Array(readings));
  const together = isOfPairs(statistic);
  const picks = from.map(({ length }) => new Int32Array(length * times));
  const values = picks.map(({ length }) => new Float64Array(length));
  const { state, before } = placeOf(placed);
  for (let r = 0; r <= before; r++) {
    for (let g = 0; g < from.length; g++) {
      if (g === 0 || !together) pickDrawn(state, from[g]!.length, picks[g]!);
      else picks[g]!.set(picks[0]!);
      const [own, out, which] = [from[g]!, values[g]!, picks[g]!];
      for (let i = 0; i < out.length; i++)
        out[i] = own[which[i]!]! + (smooth > 0 ? (nextOpenUnit(state) - 0.5) * smooth : 0);
    }
  }
  const found = evaluatorOf(statistic)(together ? values : values.map((own) => own.slice().sort()));
  return { picks, values, statistic: found };
}

/** One permutation, drawn again by itself; the arrangement as in `Arranging.at`. */
export function permutationReplicate(input: Shuffled, placed: Placed): { at: Int32Array; statistic: number } {
  const ways = arranging(input.arranged);
  const { state, before } = placeOf(placed);
  for (let r = 0; r <= before; r++) ways.shuffle(state);
  return { at: ways.at, statistic: arrangedFigure(input)(ways.at) };
}

/** Arrangement `number` of all, from 1. */
export function arrangementAt(input: Shuffled, number: number): { at: Int32Array; statistic: number } {
  const ways = arranging(input.arranged);
  ways.goTo(number - 1);
  return { at: ways.at, statistic: arrangedFigure(input)(ways.at) };
}
