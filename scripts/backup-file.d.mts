export interface BackupHead {
  version: number;
  schema: number;
  made: string;
  studies: number;
}
export class BackupRefused extends Error {}
export function writeBackup(url: string, file: string, options?: { signal?: AbortSignal }): Promise<BackupHead>;
export function readBackup(file: string): Promise<BackupHead>;
export function loadBackup(url: string, file: string): Promise<void>;
