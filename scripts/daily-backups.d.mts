export function backupOfToday(
  url: string,
  dir: string,
  kept: number,
  options?: { signal?: AbortSignal; today?: Date },
): Promise<void>;
export function keepBackups(
  url: string,
  dir: string,
  kept: number,
  onFailure: (error: Error) => void,
): () => Promise<void>;
