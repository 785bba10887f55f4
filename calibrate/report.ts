/** One line: how often something was found, with four standard errors, and whether that is at most (or just) the level. */
export function report(what: string, found: number, samples: number, level: number, just: boolean): boolean {
  const share = found / samples;
  const error = 4 * Math.sqrt((level * (1 - level)) / samples);
  const holds = just ? Math.abs(share - level) <= error : share <= level + error;
  const wanted = just ? `${level} ± ${error.toFixed(4)}` : `at most ${level} (+ ${error.toFixed(4)})`;
  console.log(`${what}: ${share.toFixed(4)}, wanted ${wanted} ${holds ? 'kept' : 'MISSED'}`);
  return holds;
}
