/*
 * The same map of a floor as core/coverage/map.ts, written plainly: shadows of walls as differences along rows, then
 * one pass over the cells for each antenna, a ceiling dome.
 *
 * coverage FILE ROUNDS → nanoseconds of the best round, and the sum of all levels
 * FILE: int32 columns, rows, walls, senders; double west, south, step, up, frequency, phone;
 *       double x1, y1, x2, y2, loss, from, to per wall; double x, y, up, fed, slabs, gain, width, floor per sender
 */
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

static int32_t columns, rows, nwalls, nsenders;
static double west, south, step, up;
static double *crossed;

static void fill(const double *px, const double *py, double value) {
  double low = fmin(fmin(py[0], py[1]), fmin(py[2], py[3])), high = fmax(fmax(py[0], py[1]), fmax(py[2], py[3]));
  double f = ceil((low - south) / step), l = floor((high - south) / step);
  int first = f < 0 ? 0 : (f > rows ? rows : (int)f), last = l > rows - 1 ? rows - 1 : (l < -1 ? -1 : (int)l);
  for (int r = first; r <= last; r++) {
    double y = south + r * step, left = INFINITY, right = -INFINITY;
    for (int i = 0; i < 4; i++) {
      int j = (i + 1) & 3;
      if ((py[i] <= y) == (py[j] <= y)) continue;
      double x = px[i] + (y - py[i]) / (py[j] - py[i]) * (px[j] - px[i]);
      if (x < left) left = x;
      if (x > right) right = x;
    }
    if (left > right) continue;
    double from = ceil((left - west) / step), to = floor((right - west) / step) + 1;
    if (from < 0) from = 0;
    if (to > columns) to = columns;
    if (from >= to) continue;
    double *row = crossed + (long)r * (columns + 1);
    row[(int)from] += value;
    row[(int)to] -= value;
  }
}

static void shade(const double *s, const double *w) {
  double rise = up - s[2], t1 = 0, t2 = 1;
  if (fabs(rise) < 1e-9) {
    if (s[2] < w[5] || s[2] > w[6]) return;
  } else {
    double a = (w[5] - s[2]) / rise, b = (w[6] - s[2]) / rise;
    t1 = fmax(0, fmin(a, b));
    t2 = fmin(1, fmax(a, b));
    if (t1 >= t2) return;
  }
  double near = 1 / t2, far = t1 > 1e-4 ? 1 / t1 : 1e4;
  double ax = w[0] - s[0], ay = w[1] - s[1], bx = w[2] - s[0], by = w[3] - s[1];
  double px[4] = {s[0] + ax * near, s[0] + bx * near, s[0] + bx * far, s[0] + ax * far};
  double py[4] = {s[1] + ay * near, s[1] + by * near, s[1] + by * far, s[1] + ay * far};
  fill(px, py, w[4]);
}

int main(int argc, char **argv) {
  if (argc < 3) return 1;
  FILE *f = fopen(argv[1], "rb");
  int32_t head[4];
  double place[6];
  if (!f || fread(head, 4, 4, f) != 4 || fread(place, 8, 6, f) != 6) return 1;
  columns = head[0], rows = head[1], nwalls = head[2], nsenders = head[3];
  west = place[0], south = place[1], step = place[2], up = place[3];
  double frequency = place[4], phone = place[5];
  double *walls = malloc(56L * nwalls), *senders = malloc(64L * nsenders);
  if (fread(walls, 56, nwalls, f) != (size_t)nwalls || fread(senders, 64, nsenders, f) != (size_t)nsenders) return 1;
  long n = (long)columns * rows;
  crossed = malloc(8 * (n + rows));
  double *power = malloc(8 * n);
  float *level = malloc(4 * n);
  uint8_t *best = malloc(n);
  double quickest = INFINITY, sum = 0, scattered = pow(10, -2.5);
  for (int round = 0; round < atoi(argv[2]); round++) {
    struct timespec a, b;
    clock_gettime(CLOCK_MONOTONIC, &a);
    memset(power, 0, 8 * n);
    memset(best, 0, n);
    double one = 20 * log10(frequency) - 27.55;
    for (int s = 0; s < nsenders; s++) {
      const double *at = senders + 8 * s;
      memset(crossed, 0, 8 * (n + rows));
      for (int w = 0; w < nwalls; w++) shade(at, walls + 7 * w);
      double base = pow(10, (at[3] + phone - one) / 10), dz = up - at[2];
      double peak = pow(10, at[5] / 10), bend = 12 * (180 / M_PI) * (180 / M_PI) / (at[6] * at[6]), floor_ = pow(10, -at[7] / 10);
      for (int r = 0; r < rows; r++) {
        double dy = south + r * step - at[1], total = at[4], flat = dy * dy + dz * dz;
        double through = exp(-M_LN10 / 20 * total), arriving = base * through, most = arriving * (through * peak + scattered);
        long i = (long)r * columns, shadow = (long)r * (columns + 1);
        for (int c = 0; c < columns; c++, i++, shadow++) {
          double change = crossed[shadow];
          if (change != 0) {
            total += change;
            through = exp(-M_LN10 / 20 * total), arriving = base * through, most = arriving * (through * peak + scattered);
          }
          double dx = west + c * step - at[0], d2 = dx * dx + flat, spread = d2 > 0.25 ? d2 : 0.25;
          if (most <= power[i] * spread) continue;
          double cosine = -dz / sqrt(d2);
          double off = acos(cosine > 1 ? 1 : (cosine < -1 ? -1 : cosine));
          double gain = peak * fmax(floor_, exp(-M_LN10 / 10 * bend * off * off));
          double p = arriving / spread * (through * gain + scattered);
          if (p > power[i]) power[i] = p, best[i] = s;
        }
      }
    }
    for (long i = 0; i < n; i++) level[i] = 10 * log10(power[i]);
    clock_gettime(CLOCK_MONOTONIC, &b);
    double took = (b.tv_sec - a.tv_sec) * 1e9 + (b.tv_nsec - a.tv_nsec);
    if (took < quickest) quickest = took;
    sum = 0;
    for (long i = 0; i < n; i++) sum += level[i];
  }
  printf("%.0f %.6f\n", quickest, sum);
  return 0;
}
