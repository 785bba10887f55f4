export interface LockHolder {
  pid: number;
  url: string | null;
}
export function lockHolder(home: string): LockHolder | null;
export function takeLock(home: string): LockHolder | null;
export function tellAddress(home: string, url: string): void;
export function releaseLock(home: string): void;
