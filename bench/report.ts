/** The middle of several rounds: one slow round is the machine's, not the code's. */
export function median(times: number[]): number {
  return [...times].sort((a, b) => a - b)[times.length >> 1]!;
}

/** One line: what, both times, their ratio, and the ratio that is promised. */
export function report(what: string, own: number, peer: number, most: number | null, unit = 'ms'): void {
  const ratio = own / peer;
  const promise = most === null ? '' : `, at most ${most} ${ratio <= most ? 'kept' : 'MISSED'}`;
  console.log(`${what}: ${own.toFixed(1)} ${unit} ÷ ${peer.toFixed(1)} ${unit} = ${ratio.toFixed(2)}${promise}`);
}
