/**
 * The simulated p of A² for a normal with estimated mean and sd: through the analysis' own kernel and chunks, beside a plain loop that
 * does the same draws, sorts and sums in one function, and with one worker beside two.
 */
import { createStream } from '@verdict/core/random';
import { toSample } from '@verdict/core/readings';
import { drive, performChunk, type Executor, type KernelOrder, type Stage } from '@verdict/core/road';
import { fileURLToPath } from 'node:url';
import workerpool from 'workerpool';
import { median, report } from './report.js';

const N = 50;
const REPLICATES = 20_000;
const ROUNDS = 15;
const order: KernelOrder = {
  kernel: 'normality-replicates',
  input: { test: 'anderson-darling', n: N, population: 'normal', rounding: null },
  seed: 4711,
  firstStream: 0,
  replicates: REPLICATES,
  chunkSize: 2_000,
};

async function throughTheKernel(): Promise<number> {
  let sum = 0;
  for (let k = 0; k < 10; k++) for (const a of await performChunk(order, k)) sum += a;
  return sum;
}

// ---- the plain loop: no module of the core but the seeding of the streams, the engine's own exp and log.
const WIDTH = new Float64Array(257);
const INNER = new Float64Array(256);
const HEIGHT = new Float64Array(257);
{
  const area = 0.00492867323399;
  const f = (x: number) => Math.exp(-0.5 * x * x);
  WIDTH[1] = 3.6541528853610088;
  WIDTH[0] = area / f(WIDTH[1]);
  for (let i = 2; i < 256; i++) WIDTH[i] = Math.sqrt(-2 * Math.log(area / WIDTH[i - 1]! + f(WIDTH[i - 1]!)));
  for (let i = 0; i < 256; i++) INNER[i] = WIDTH[i + 1]! / WIDTH[i]!;
  for (let i = 0; i <= 256; i++) HEIGHT[i] = f(WIDTH[i]!);
}

function plainErfc(x: number): number {
  if (x < 0.84375) {
    const z = x * x;
    const r =
      0.12837916709551256 +
      z *
        (-0.3250421072470015 + z * (-0.02848174957559851 + z * (-0.005770270296489442 + z * -0.000023763016656650163)));
    const s =
      1 +
      z *
        (0.39791722395915535 +
          z *
            (0.0650222499887673 +
              z * (0.005081306281875766 + z * (0.00013249473800432164 + z * -0.000003960228278775368))));
    return 1 - (x + x * (r / s));
  }
  if (x < 1.25) {
    const s = x - 1;
    const p =
      -0.0023621185607526594 +
      s *
        (0.41485611868374833 +
          s *
            (-0.3722078760357013 +
              s *
                (0.31834661990116175 +
                  s * (-0.11089469428239668 + s * (0.035478304325618236 + s * -0.002166375594868791)))));
    const q =
      1 +
      s *
        (0.10642088040084423 +
          s *
            (0.540397917702171 +
              s *
                (0.07182865441419627 +
                  s * (0.12617121980876164 + s * (0.01363708391202905 + s * 0.011984499846799107)))));
    return 1 - 0.8450629115104675 - p / q;
  }
  const s = 1 / (x * x);
  const [r, q] =
    x < 2.857142857142857
      ? [
          -0.009864944034847148 +
            s *
              (-0.6938585727071818 +
                s *
                  (-10.558626225323291 +
                    s *
                      (-62.375332450326006 +
                        s *
                          (-162.39666946257347 +
                            s * (-184.60509290671104 + s * (-81.2874355063066 + s * -9.814329344169145)))))),
          1 +
            s *
              (19.651271667439257 +
                s *
                  (137.65775414351904 +
                    s *
                      (434.56587747522923 +
                        s *
                          (645.3872717332679 +
                            s *
                              (429.00814002756783 +
                                s * (108.63500554177944 + s * (6.570249770319282 + s * -0.0604244152148581))))))),
        ]
      : [
          -0.0098649429247001 +
            s *
              (-0.799283237680523 +
                s *
                  (-17.757954917754752 +
                    s *
                      (-160.63638485582192 +
                        s * (-637.5664433683896 + s * (-1025.0951316110772 + s * -483.5191916086514))))),
          1 +
            s *
              (30.33806074348246 +
                s *
                  (325.7925129965739 +
                    s *
                      (1536.729586084437 +
                        s *
                          (3199.8582195085955 +
                            s * (2553.0504064331644 + s * (474.52854120695537 + s * -22.44095244658582)))))),
        ];
  const z = Math.fround(x);
  return (Math.exp(-z * z - 0.5625) * Math.exp((z - x) * (z + x) + r / q)) / x;
}

function plainLoop(): number {
  const values = new Float64Array(N);
  const lower = new Float64Array(N);
  const upper = new Float64Array(N);
  let total = 0;
  for (let chunk = 0; chunk < 10; chunk++) {
    const state = createStream(4711, chunk);
    let s0 = state[0]!;
    let s1 = state[1]!;
    let s2 = state[2]!;
    let s3 = state[3]!;
    const word = () => {
      let t = Math.imul(s1, 5);
      const out = Math.imul((t << 7) | (t >>> 25), 9);
      t = s1 << 9;
      s2 ^= s0;
      s3 ^= s1;
      s1 ^= s2;
      s0 ^= s3;
      s2 ^= t;
      s3 = (s3 << 11) | (s3 >>> 21);
      return out;
    };
    const unit = () => ((word() >>> 5) * 67108864 + (word() >>> 6) + 0.5) / 9007199254740992;
    for (let replicate = 0; replicate < 2_000; replicate++) {
      for (let i = 0; i < N;) {
        const low = word();
        const high = word();
        const layer = low & 255;
        const share = ((high >>> 0) * 2097152 + (low >>> 11)) * 1.1102230246251565e-16;
        let x = share * WIDTH[layer]!;
        if (share >= INNER[layer]!) {
          if (layer === 0) {
            let y;
            do {
              x = -Math.log(unit()) / WIDTH[1]!;
              y = -Math.log(unit());
            } while (y + y <= x * x);
            x += WIDTH[1]!;
          } else if (HEIGHT[layer]! + unit() * (HEIGHT[layer + 1]! - HEIGHT[layer]!) >= Math.exp(-0.5 * x * x))
            continue;
        }
        values[i++] = low & 256 ? -x : x;
      }
      let sum = 0;
      for (let i = 0; i < N; i++) sum += values[i]!;
      const mean = sum / N;
      let squares = 0;
      for (let i = 0; i < N; i++) squares += (values[i]! - mean) * (values[i]! - mean);
      values.sort();
      const scale = Math.SQRT1_2 / Math.sqrt(squares / (N - 1));
      for (let i = 0; i < N; i++) {
        const x = (values[i]! - mean) * scale;
        const tail = 0.5 * plainErfc(Math.abs(x));
        lower[i] = x < 0 ? tail : 1 - tail;
        upper[N - 1 - i] = x < 0 ? 1 - tail : tail;
      }
      let weighted = 0;
      for (let i = 0; i < N; i++) weighted += (2 * i + 1) * Math.log(lower[i]! * upper[i]!);
      total += -N - weighted / N;
    }
  }
  return total;
}

function milliseconds(work: () => unknown): number {
  const started = performance.now();
  work();
  return performance.now() - started;
}

/** The same analysis over a pool of so many threads, from request to result. */
async function withWorkers(lanes: number): Promise<() => Promise<number>> {
  const worker = fileURLToPath(new URL('../../server/dist/jobs/analysis-worker.js', import.meta.url));
  const pool = workerpool.pool(worker, {
    workerType: 'thread',
    minWorkers: lanes,
    maxWorkers: lanes,
    workerThreadOpts: { execArgv: [] },
  });
  const executor: Executor = {
    lanes,
    advance: async (...job) => (await pool.exec('advance', job)) as Stage,
    chunk: async (chunkOrder, k) => (await pool.exec('chunk', [chunkOrder, k])) as Float64Array,
  };
  const column = { name: 'x', unit: '', resolution: null, decimal: 'point', thousands: 'none' } as const;
  const cells = Array.from({ length: N }, (_, i) => String(Math.sin(i * 12.9898)));
  const sample = { ...toSample(column, cells, new Set()), resolution: null };
  const job = { id: 'normality', request: { column: 'x', replicates: 200_000 }, sample };
  const run = async () => {
    const started = performance.now();
    await drive(executor, job);
    return performance.now() - started;
  };
  for (let i = 0; i < 2; i++) await run();
  return Object.assign(run, { close: () => pool.terminate() });
}

export async function benchAndersonDarling(): Promise<void> {
  const [a, b] = [await throughTheKernel(), plainLoop()];
  if (Math.abs(a - b) > 1e-9 * Math.abs(b)) throw new Error(`The plain loop does other work: ${a} and ${b}.`);
  const kernel: number[] = [];
  const plain: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const started = performance.now();
    await throughTheKernel();
    kernel.push(performance.now() - started);
    plain.push(milliseconds(plainLoop));
  }
  report('A² of 20 000 normal samples of 50, kernel ÷ plain loop', median(kernel), median(plain), 1.15);
  const runs = [await withWorkers(1), await withWorkers(2)] as const;
  const one: number[] = [];
  const two: number[] = [];
  for (let i = 0; i < 7; i++) {
    one.push(await runs[0]());
    two.push(await runs[1]());
  }
  for (const run of runs) void (run as unknown as { close(): void }).close();
  report('simulated p, 200 000 samples of 50, two workers ÷ one', median(two), median(one), 0.65);
}
