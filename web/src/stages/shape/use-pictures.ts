import type { Study } from '@verdict/contract';
import type { Sample } from '@verdict/core/readings';
import type { Analysis, Settings } from '@verdict/core/road';
import type { Ref } from 'vue';
import { useRun, type Run, type Shown as ShownResult } from '../../workbench/use-run.js';
import { PICTURES, type PictureId, type Shown } from './pictures.js';

const TITLES = ['title', 'valueTitle', 'heightTitle'];

/** A run for each picture, of which only the one that is looked at is worked out. */
export function usePictures(
  sample: Ref<Sample | null>,
  asked: () => object | null,
  looked: () => PictureId,
  study: () => Pick<Study, 'alpha' | 'quantileType'> | null,
) {
  /** What a picture takes from the study. */
  const ofStudy: Partial<Record<PictureId, () => object>> = {
    'in-order': () => ({ alpha: study()!.alpha }),
    box: () => ({ quantileType: study()!.quantileType }),
  };
  const runs = Object.fromEntries(
    PICTURES.map(({ id, analysis }) => {
      const fixed = () => (looked() === id && study() && asked() ? { ...asked(), ...ofStudy[id]?.() } : null);
      const texts = id === 'stem-and-leaf' ? [] : TITLES;
      // The pictures differ in request and result; what is shown tells them apart by the id.
      const any = analysis as unknown as Analysis<Settings, ShownResult>;
      return [id, useRun(any, sample, { fixed, elsewhere: ['quantileType'], texts })];
    }),
  ) as Record<PictureId, Run<Settings, ShownResult>>;
  const shownOf = (id: PictureId): Shown | null => {
    const { value: result } = runs[id].result;
    return result && ({ id, result } as unknown as Shown);
  };
  return { runs, shownOf };
}
