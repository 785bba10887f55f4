import { readShares, readTyped, TYPED_FIELDS, type ClaimId } from '@verdict/core/analyses';
import { NO_READINGS } from '@verdict/core/readings';
import type { PartsBy, StudyColumn } from '@verdict/contract';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { unchanged } from '../../../workbench/run/unchanged.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useLooked } from '../../../workbench/frame/use-looked.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { useTwoGroups } from '../../../workbench/parts/use-two-groups.js';
import { claimOf } from './claims.js';

const TWO = new Set<ClaimId>(['two-means', 'two-medians', 'two-spreads', 'two-shares']);
const IN_GROUPS = new Set<ClaimId>([...TWO, 'several-means', 'several-medians', 'several-spreads', 'table-claim']);
/** Claims whose counts have a column beside that says out of how many, or over how much. */
const BESIDE: Partial<Record<ClaimId, string>> = { 'share-claim': 'trials', 'rate-claim': 'exposure' };

/** What the card of a column says that a claim may be about. */
function fromCard(claim: ClaimId, { claimedMean, claimedSd, target, lowerLimit, upperLimit }: StudyColumn) {
  const limits = {
    ...(lowerLimit === null ? {} : { lower: lowerLimit }),
    ...(upperLimit === null ? {} : { upper: upperLimit }),
  };
  const mean = claimedMean ?? target;
  const told = (value: number | null, field = 'claimed') => (value === null ? {} : { [field]: value });
  switch (claim) {
    case 'mean-claim':
      return { ...told(mean), ...told(claimedSd, 'knownSd') };
    case 'median-claim':
      return told(mean);
    case 'spread-claim':
      return told(claimedSd);
    case 'mean-and-sd-claim':
      return { ...told(mean), ...told(claimedSd, 'claimedSd') };
    case 'share-claim':
    case 'two-shares':
    case 'tolerance':
      return limits;
    default:
      return {};
  }
}

/** The readings a claim is about, as the bar and the address name them. */
function useReadings(claim: ClaimId) {
  const store = useStudy();
  const address = useAddress();
  const { column } = useLooked();
  const parts = useParts();
  const others = computed(() => parts.others.value.filter(({ kind }) => kind !== 'label'));
  const besideKey = BESIDE[claim];
  const besides = computed(() => others.value.find(({ id }) => besideKey && id === address.textOf(besideKey)) ?? null);
  const besideId = computed({
    get: () => besides.value?.id ?? '',
    set: (id: string) => void (besideKey && address.change({ [besideKey]: id || undefined })),
  });
  const inGroups = computed(() => IN_GROUPS.has(claim) || (claim === 'counts-claim' && column.value?.kind === 'count'));
  const by = unchanged<PartsBy | null>(() =>
    inGroups.value ? parts.parts.value : besides.value ? { beside: [besides.value.id] } : null,
  );
  const asked = () => (inGroups.value ? parts.asked.value : besides.value ? { beside: [besides.value.name] } : {});
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, by.value) : null));
  const names = computed(() =>
    (sample.value?.groups?.samples ?? []).filter(({ values }) => values.length > 0).map(({ name }) => name),
  );
  return { column, by, asked, sample, names, others, besideKey, besideId };
}

/** Figures that are typed, as texts in the address. */
function useTyped(claim: ClaimId, typed: () => boolean) {
  const address = useAddress();
  const fields = TYPED_FIELDS[claim] ?? [];
  const texts = computed(() =>
    Object.fromEntries(fields.map(({ key }) => [key, address.textOf(`typed.${key}`) ?? ''])),
  );
  const set = (key: string, text: string) => void address.change({ [`typed.${key}`]: text.trim() || undefined });
  const read = computed(() => (typed() ? readTyped(claim, texts.value) : null));
  /** The typed figures as settings, or their fault. */
  const judged = computed<{ settings: Record<string, unknown> | null; field: string; problem: string }>(() => {
    if (!read.value) return { settings: null, field: '', problem: '' };
    if ('problem' in read.value) return { settings: null, ...read.value };
    const found = claimOf(claim).request.safeParse(read.value.settings);
    if (found.success) return { settings: read.value.settings, field: '', problem: '' };
    const [issue] = found.error.issues;
    return {
      settings: null,
      field: String(issue?.path.at(-1) ?? ''),
      problem: issue?.message ?? 'These settings cannot be combined.',
    };
  });
  return { fields, texts, set, judged };
}

/** One claim: its subject, its request, and its result. */
export function useClaim(claim: ClaimId, typed: () => boolean) {
  const store = useStudy();
  const address = useAddress();
  const readings = useReadings(claim);
  const { asked: askedOfTwo, choose } = useTwoGroups(() => readings.names.value);
  const two = { isTwo: TWO.has(claim), asked: () => (TWO.has(claim) ? askedOfTwo() : {}), choose };
  const figures = useTyped(claim, typed);

  /** Of labels: which level is meant. */
  const levels = computed(() =>
    claim === 'share-claim' || claim === 'two-shares' ? (readings.sample.value?.levels ?? []) : [],
  );
  const level = computed({
    get: () => levels.value.find((name) => name === address.textOf('level')) ?? levels.value[0] ?? '',
    set: (name: string) => void address.change({ level: name }),
  });
  /** Claimed shares of a column of labels, as they are typed. */
  const shares = computed({
    get: () => address.textOf('shares') ?? '',
    set: (text: string) => void address.change({ shares: text.trim() || undefined }),
  });
  const readOfShares = computed(() => (shares.value === '' ? null : readShares(shares.value)));
  const sharesProblem = computed(() =>
    readOfShares.value && 'problem' in readOfShares.value ? readOfShares.value.problem : '',
  );

  const sample = computed(() => (typed() ? NO_READINGS : readings.sample.value));
  const fixed = (): object | null => {
    const alpha = store.study!.alpha;
    if (typed()) return figures.judged.value.settings && { alpha, ...figures.judged.value.settings };
    const { column } = readings;
    if (!column.value) return null;
    const counted = column.value.kind === 'count' && claim === 'share-claim' ? { of: 'counts' } : {};
    const spread =
      claim === 'counts-claim' && readOfShares.value && 'settings' in readOfShares.value
        ? readOfShares.value.settings
        : {};
    return {
      ...{ column: column.value.name, alpha, ...fromCard(claim, column.value), ...counted },
      ...(levels.value.length ? { level: level.value, of: 'level' } : {}),
      ...{ ...readings.asked(), ...two.asked(), ...spread },
    };
  };
  const run = useRun(claimOf(claim), sample, {
    name: claim,
    fixed,
  });
  const about = () => {
    if (typed()) return figures.judged.value.settings ? { column: null, sample: NO_READINGS } : null;
    const { column, by } = readings;
    return column.value && sample.value ? { column: column.value.id, parts: by.value, sample: sample.value } : null;
  };
  const stage = useStage({ runs: () => [run], about });
  return { run, stage, readings, two, figures, levels, level, shares, sharesProblem };
}
