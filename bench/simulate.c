/* The loop of bench/simulate.ts in C, compiled by the bench where there is a compiler: prints its time in milliseconds. */
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
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

static int N, LARGE, SAMPLES;
static double *values, *out;

/* p of t with odd degrees of freedom (Abramowitz & Stegun 26.7.3). */
static double p_of_t(double t, int df) {
  const double theta = atan(fabs(t) / sqrt(df)), c = cos(theta);
  double term = c, sum = c;
  for (int k = 2; k < df - 1; k += 2) {
    term *= c * c * k / (k + 1);
    sum += term;
  }
  return 1 - (2 / M_PI) * (theta + sin(theta) * (df > 1 ? sum : 0));
}

static void tests(double claimed) {
  double *sample = malloc(N * sizeof *sample);
  for (int r = 0; r < SAMPLES; r++) {
    double sum = 0, squares = 0;
    for (int i = 0; i < N; i++) {
      sample[i] = values[below(LARGE)];
      sum += sample[i];
    }
    const double mean = sum / N;
    for (int i = 0; i < N; i++) squares += (sample[i] - mean) * (sample[i] - mean);
    out[r] = p_of_t((mean - claimed) / sqrt(squares / (N - 1) / N), N - 1);
  }
  free(sample);
}

int main(int count, char **words) {
  if (count < 4) return 1;
  N = atoi(words[1]);
  LARGE = atoi(words[2]);
  SAMPLES = atoi(words[3]);
  values = malloc(LARGE * sizeof *values);
  out = malloc(SAMPLES * sizeof *out);
  for (int i = 0; i < 4; i++) s[i] = 0x9e3779b9u * (i + 1);
  double mean = 0;
  for (int i = 0; i < LARGE; i++) mean += (values[i] = (i % 977) * 0.5) / LARGE;
  double best = 1e9;
  for (int k = 0; k < 15; k++) {
    const double from = now();
    tests(mean);
    const double took = now() - from;
    if (took < best) best = took;
  }
  printf("%f\n", best);
  return out[0] < 0;
}
