import type { Sample } from '@verdict/core/readings';
import {
  isField,
  isUnavailable,
  partsFor,
  type Analysis,
  type Note,
  type SentencePart,
  type Settings,
} from '@verdict/core/road';
import { computed, type ComputedRef, type Ref } from 'vue';
import { useJobs } from '../../stores/jobs.js';
import { askedOf, objectionOf } from './asked.js';
import type { FieldValue } from './field-values.js';
import { useAnalysis, type Running } from './use-analysis.js';
import { useSettings, type Settings as FieldSettings } from './use-settings.js';

/** What every result that can be shown has. */
export interface Shown {
  available: true;
  notes: readonly Note[];
}

export interface RunSettings {
  /** Under which name its settings stand in the address; that of the analysis by default. */
  name?: string;
  /** The parts of the request that do not come from the address: column, level. Null while nothing is to be run. */
  fixed: () => object | null;
  /** What the request takes in place of the settings of the address; null where nothing can be asked. */
  settled?: (settings: FieldSettings) => object | null;
  /** Fields of the sentence that stand elsewhere, with the study. */
  elsewhere?: readonly string[];
  /** Settings that are no fields of the sentence: titles. */
  texts?: readonly string[];
}

/** An analysis in a stage: its settings in the address, its request, and its result. */
export interface Run<Request extends Settings = Settings, Result = unknown> extends Omit<Running<Result>, 'result'> {
  analysis: Pick<Analysis<Request, Result>, 'id' | 'version' | 'name' | 'request'>;
  /** The method as a sentence with fields. */
  parts: ComputedRef<readonly SentencePart[]>;
  address: ReturnType<typeof useSettings>;
  request: ComputedRef<Request | null>;
  /** The result that can be shown, whole or partial. */
  result: ComputedRef<Result | null>;
  /** Why there is none. */
  whyNot: ComputedRef<string | null>;
  /** The cautions of its result, and the ignored settings of the address. */
  notes: ComputedRef<readonly Note[]>;
  /** Why a field cannot take a value beside the others; null where it can. */
  objection: (field: string, value: FieldValue) => string | null;
}

/** Runs an analysis on a sample whenever its settings, the readings or the fixed parts change. */
export function useRun<Request extends Settings, Result extends Shown>(
  analysis: Analysis<Request, Result>,
  sample: Ref<Sample | null>,
  { name = analysis.id, fixed, settled, elsewhere = [], texts = [] }: RunSettings,
): Run<Request, Result> {
  const { method } = analysis;
  const standing = typeof method === 'function' ? [] : method;
  const here = standing.filter((part) => !isField(part) || !elsewhere.includes(part.field));
  const address = useSettings(name, here, texts);
  const asked = computed(() => {
    const given = fixed();
    const own = settled ? settled(address.settings.value) : address.settings.value;
    return given && own && sample.value ? askedOf(analysis, given, own) : null;
  });
  const request = computed(() => (asked.value ? analysis.resolve(asked.value.request, sample.value!) : null));
  const { result: found, ...running } = useAnalysis(analysis, request, sample, useJobs());
  const result = computed(() => (found.value && !isUnavailable(found.value) ? found.value : null));
  return {
    ...running,
    analysis,
    parts: computed(() => (request.value ? partsFor(method, request.value) : standing)),
    address,
    request,
    result,
    whyNot: computed(() => (found.value && isUnavailable(found.value) ? found.value.reason : null)),
    notes: computed(() => [...(asked.value?.left ?? []), ...(result.value?.notes ?? [])]),
    objection: (field, value) => objectionOf(analysis, fixed() ?? {}, request.value ?? {}, { [field]: value }),
  };
}
