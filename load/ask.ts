import { Agent, request } from 'node:http';

/** Asks once and reads the answer to its end, without looking into it. Resolves with the status and the milliseconds it took. */
export function timed(
  url: string,
  agent: Agent,
  options: { method?: string; type?: string; body?: string | Buffer } = {},
): Promise<{ status: number; milliseconds: number; body: string }> {
  const { method = 'GET', type = 'application/json', body } = options;
  const started = performance.now();
  return new Promise((resolve, reject) => {
    const headers = { 'Accept-Encoding': 'gzip', ...(body === undefined ? {} : { 'Content-Type': type }) };
    const asked = request(url, { method, agent, headers }, (answer) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => method === 'POST' && chunks.push(chunk));
      answer.on('end', () => {
        const milliseconds = performance.now() - started;
        resolve({ status: answer.statusCode ?? 0, milliseconds, body: Buffer.concat(chunks).toString() });
      });
      answer.on('error', reject);
    });
    asked.on('error', reject);
    asked.end(body);
  });
}

export const quantile = (values: readonly number[], p: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(p * values.length))] ?? NaN;

/** Asks the same again and again over so many connections for so long. */
export async function flood(url: string, connections: number, milliseconds: number) {
  const agent = new Agent({ keepAlive: true, maxSockets: connections });
  const until = performance.now() + milliseconds;
  const times: number[] = [];
  let errors = 0;
  const one = async () => {
    while (performance.now() < until) {
      const answer = await timed(url, agent).catch(() => null);
      if (answer?.status === 200) times.push(answer.milliseconds);
      else errors++;
    }
  };
  await Promise.all(Array.from({ length: connections }, one));
  agent.destroy();
  return { count: times.length, errors, median: quantile(times, 0.5), late: quantile(times, 0.99) };
}

/** Asks something trivial every few milliseconds until told to stop: the longest wait is the longest stall of the server. */
export function watchStalls(url: string) {
  const agent = new Agent({ keepAlive: true });
  const times: number[] = [];
  let stopped = false;
  const done = (async () => {
    while (!stopped) {
      times.push((await timed(url, agent)).milliseconds);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  return async () => {
    stopped = true;
    await done;
    agent.destroy();
    return { longest: Math.max(...times), median: quantile(times, 0.5), count: times.length };
  };
}
