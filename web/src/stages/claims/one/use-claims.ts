import { claimOffers, usualClaim, type ClaimId, type Looked } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useFresh } from '../../../workbench/frame/use-fresh.js';
import { useLooked } from '../../../workbench/frame/use-looked.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { isClaimId } from './claims.js';

/** Settings of one column are not used for another. */
const OF_ONE_COLUMN =
  /^[\w-]+\.(claimed|claimedSd|knownSd|lower|upper|noticeable|margin|exposure|trials)$|^(shares|level|first|second|trials|exposure)$/;

/** Which claim is looked at: of what the bar says, or of typed figures. */
export function useClaims() {
  const store = useStudy();
  const address = useAddress();
  const { column } = useLooked();
  const parts = useParts();
  parts.resume();

  useFresh(() => column.value?.id, OF_ONE_COLUMN);

  const typed = computed({
    get: () => address.textOf('typed') === 'yes' || column.value === null,
    set: (yes) => void address.change({ typed: yes ? 'yes' : undefined, claim: undefined }),
  });
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.parts.value) : null));
  const looked = computed<Looked>(() => {
    if (typed.value || !column.value) return { kind: null, name: '', groups: 1, split: false };
    const filled = sample.value?.groups?.samples.filter(({ values }) => values.length > 0).length ?? 1;
    return { kind: column.value.kind, name: column.value.name, groups: filled, split: parts.split.value !== null };
  });
  const offers = computed(() => claimOffers(looked.value));
  const claim = computed<ClaimId>({
    get: () => {
      const asked = offers.value.find(({ id }) => id === address.textOf('claim'));
      const usual = usualClaim(looked.value);
      const id = asked && asked.whyNot === null ? asked.id : usual;
      return isClaimId(id) ? id : 'mean-claim';
    },
    set: (id) => void address.change({ claim: id }),
  });
  const options = computed(() =>
    offers.value.map(({ id, word, group, whyNot }) => ({ value: id as ClaimId, text: word, group, whyNot })),
  );
  return { column, typed, looked, claim, options };
}
