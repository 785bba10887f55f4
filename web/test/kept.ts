import type { Evidence } from '@verdict/contract';
import type { Drawing, KeptPicture } from '../src/workbench/frame/stage.js';

/** A kept result as its stage draws it again. */
export const drawnAgain = (
  drawings: readonly Drawing[],
  analysis: string,
  request: object,
  result: unknown,
): KeptPicture | null | undefined =>
  drawings.find((one) => one.analysis === analysis)?.draw({ analysis, request, result } as Evidence, null);
