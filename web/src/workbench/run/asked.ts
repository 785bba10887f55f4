import type { Analysis, Note, Settings } from '@verdict/core/road';

type Read<Request extends Settings> = Pick<Analysis<Request>, 'request'>;

/**
 * The request of an analysis: `fixed`, and the settings from the address that it accepts. Invalid settings in an address are ignored, and this is
 * said.
 */
export function askedOf<Request extends Settings>(
  { request }: Read<Request>,
  fixed: object,
  settings: object,
): { request: Request; left: Note[] } {
  const kept: Record<string, unknown> = { ...settings };
  const left: Note[] = [];
  for (;;) {
    const read = request.safeParse({ ...fixed, ...kept });
    if (read.success) return { request: read.data, left };
    const odd = read.error.issues.filter(({ path }) => String(path[0]) in kept);
    if (odd.length === 0) return { request: request.parse(fixed), left };
    for (const { path, message } of odd) {
      delete kept[String(path[0])];
      left.push({ code: 'setting-left-out', text: `${message} The default is used instead.` });
    }
  }
}

/** Why a setting cannot be changed so, beside the others; null where it can. */
export function objectionOf<Request extends Settings>(
  { request }: Read<Request>,
  fixed: object,
  settings: object,
  change: object,
): string | null {
  const read = request.safeParse({ ...fixed, ...settings, ...change });
  return read.success ? null : (read.error.issues[0]?.message ?? 'This setting cannot be combined with the others.');
}
