export interface LogOptions {
  most?: number;
  kept?: number;
  onFailure?: (error: Error) => void;
}
export interface Log {
  write(text: string): void;
}
export function openLog(file: string, options?: LogOptions): Log;
