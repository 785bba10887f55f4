/** The secret by which a running Verdict knows its own: in a file that only its owner reads. */
import { randomBytes } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const fileOf = (home) => join(home, 'token');

/** The secret of this directory; null where there is none yet, or where it is somebody else's. */
export function readSecret(home) {
  try {
    return readFileSync(fileOf(home), 'utf8').trim() || null;
  } catch {
    return null;
  }
}

/** The secret of this directory, made at the first start. */
export function ensureSecret(home) {
  const known = readSecret(home);
  if (known) return known;
  const secret = randomBytes(32).toString('hex');
  writeFileSync(fileOf(home), secret, { mode: 0o600 });
  return secret;
}

/** A new address of the Verdict that runs at `url`, for a browser that has none yet; the plain one where it gives none. */
export async function newAddress(home, url) {
  const headers = { Authorization: `Bearer ${readSecret(home)}` };
  const answer = await fetch(`${url}api/keys`, { method: 'POST', headers }).catch(() => null);
  return answer?.ok ? `${url}${(await answer.json()).address}` : url;
}
