/* The loops of bench/resample.ts in C, compiled by the bench where there is a compiler: prints one time in milliseconds a line. */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

static uint32_t s[4];
static inline uint32_t rotl(uint32_t x, int k) { return (x << k) | (x >> (32 - k)); }
static inline uint32_t next(void) {
  const uint32_t result = rotl(s[1] * 5, 7) * 9, t = s[1] << 9;
  s[2] ^= s[0];
  s[3] ^= s[1];
  s[1] ^= s[2];
  s[0] ^= s[3];
  s[2] ^= t;
  s[3] = rotl(s[3], 11);
  return result;
}
static inline uint32_t below(uint32_t n) { return (uint32_t)(((uint64_t)next() * n) >> 32); }
static double now(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return 1e3 * t.tv_sec + t.tv_nsec / 1e6;
}
static int rising(const void *a, const void *b) {
  const double x = *(const double *)a, y = *(const double *)b;
  return (x > y) - (x < y);
}

/* Sizes come from outside, as they do in the loops of the core: nothing is unrolled to a constant. */
static int N, B, HALF, SHUFFLES;
static double *values, *out;

static void permutation(void) {
  double *items = malloc(2 * HALF * sizeof *items);
  memcpy(items, values, 2 * HALF * sizeof *items);
  for (int r = 0; r < SHUFFLES; r++) {
    double sum = 0;
    for (int i = 0; i < HALF; i++) {
      const int j = i + below(2 * HALF - i);
      const double v = items[j];
      items[j] = items[i];
      items[i] = v;
      sum += v;
    }
    out[r] = sum / HALF;
  }
  free(items);
}
static void means(void) {
  for (int r = 0; r < B; r++) {
    double sum = 0;
    for (int i = 0; i < N; i++) sum += values[below(N)];
    out[r] = sum / N;
  }
}
static void medians(void) {
  int *counts = malloc(N * sizeof *counts);
  for (int r = 0; r < B; r++) {
    memset(counts, 0, N * sizeof *counts);
    for (int i = 0; i < N; i++) counts[below(N)]++;
    int at = 0, passed = counts[0];
    while (passed < N / 2) passed += counts[++at];
    const double low = values[at];
    while (passed < N / 2 + 1) passed += counts[++at];
    out[r] = (low + values[at]) / 2;
  }
  free(counts);
}
static void bca(void) {
  means();
  qsort(out, B, sizeof out[0], rising);
  double sum = 0, squares = 0, cubes = 0;
  for (int i = 0; i < N; i++) sum += values[i];
  for (int i = 0; i < N; i++) {
    const double l = (values[i] - sum / N) / (N - 1);
    squares += l * l;
    cubes += l * l * l;
  }
  out[0] += cubes / squares;
}

static void timed(void (*work)(void)) {
  double best = 1e9;
  for (int k = 0; k < 15; k++) {
    const double from = now();
    work();
    const double took = now() - from;
    if (took < best) best = took;
  }
  printf("%f\n", best);
}

int main(int count, char **words) {
  if (count < 5) return 1;
  N = atoi(words[1]);
  B = atoi(words[2]);
  HALF = atoi(words[3]);
  SHUFFLES = atoi(words[4]);
  values = malloc(N * sizeof *values);
  out = malloc((SHUFFLES > B ? SHUFFLES : B) * sizeof *out);
  for (int i = 0; i < 4; i++) s[i] = 0x9e3779b9u * (i + 1);
  for (int i = 0; i < N; i++) values[i] = i * 0.001 * (i % 7 + 1);
  qsort(values, N, sizeof values[0], rising);
  timed(permutation);
  timed(means);
  timed(medians);
  timed(bca);
  return out[0] < 0;
}
