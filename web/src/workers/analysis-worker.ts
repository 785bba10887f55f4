import type { BlockLayout, ParsedBlock, Sample } from '@verdict/core/readings';
import {
  advance,
  performChunk,
  type Answers,
  type AnyAnalysis,
  type KernelOrder,
  type Stage,
} from '@verdict/core/road';
import { folderOf, type AnalysisFolder } from '../workbench/frame/folder-of.js';
import workerpool from 'workerpool';

const PREVIEW = 20;

/** A stage loads its own analyses and no others. */
const STAGES: Readonly<Record<AnalysisFolder, () => Promise<readonly AnyAnalysis[]>>> = {
  shape: async () => (await import('@verdict/core/analyses/shape')).SHAPE,
  fit: async () => (await import('@verdict/core/analyses/fit')).FIT,
  outliers: async () => (await import('@verdict/core/analyses/outliers')).OUTLIERS,
  claims: async () => (await import('@verdict/core/analyses/claims')).CLAIMS,
  resample: async () => (await import('@verdict/core/analyses/resample')).RESAMPLE,
  simulate: async () => (await import('@verdict/core/analyses/simulate')).SIMULATE,
  distributions: async () => (await import('@verdict/core/analyses/distributions')).DISTRIBUTIONS,
};

/** The analysis of an id, fetched with the others of its stage. */
async function fetched(id: string): Promise<AnyAnalysis> {
  const folder = folderOf(id);
  const found = folder && (await STAGES[folder]()).find((analysis) => analysis.id === id);
  if (!found) throw new Error(`This version of the page has no analysis “${id}”. Reload the page.`);
  return found;
}

async function advanced(id: string, request: unknown, sample: Sample, answered: Answers[]): Promise<Stage> {
  const analysis = await fetched(id);
  return advance(() => analysis, id, request, sample, answered);
}

async function parse(text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> {
  const { parseBlock } = await import('@verdict/core/readings');
  return parseBlock(text, layout, taken);
}

/** What a large text holds, with the first rows of it only: a million cells stay where they are. */
async function survey(text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> {
  const block = await parse(text, layout, taken);
  return { ...block, columns: block.columns.map((column) => ({ ...column, cells: column.cells.slice(0, PREVIEW) })) };
}

workerpool.worker({
  advance: advanced,
  survey,
  parse,
  chunk: async (order: KernelOrder, k: number) => {
    const numbers = await performChunk(order, k);
    return new workerpool.Transfer(numbers, [numbers.buffer as ArrayBuffer]);
  },
});
