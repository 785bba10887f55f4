export function readSecret(home: string): string | null;
export function ensureSecret(home: string): string;
export function newAddress(home: string, url: string): Promise<string>;
