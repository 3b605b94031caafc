/*
 * The same sums over the ground as core/terrain, written plainly: bilinear heights of one flat grid,
 * delta-Bullington's inner loops, and the skyline. Places come from the caller, since the geodesic is
 * a library's on both sides.
 *
 * ground FILE profiles|horizon ROUNDS  → nanoseconds of the best round, and checksums
 * FILE: int32 side, double south, west, degrees; int16 grid, row 0 in the north;
 *       int32 lines, points; double lat, lon per line and point; double height of the eye
 */
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

static int side;
static double south, west, degrees;
static int16_t *grid;

static double height(double lat, double lon) {
  double x = (lon - west) / degrees * (side - 1);
  double y = (south + degrees - lat) / degrees * (side - 1);
  int x0 = (int)x, y0 = (int)y;
  if (x0 > side - 2) x0 = side - 2;
  if (y0 > side - 2) y0 = side - 2;
  double fx = x - x0, fy = y - y0;
  const int16_t *h = grid + (long)y0 * side + x0;
  if (h[0] == -32768 || h[1] == -32768 || h[side] == -32768 || h[side + 1] == -32768) return NAN;
  double top = h[0] + (h[1] - h[0]) * fx;
  return top + (h[side] + (h[side + 1] - h[side]) * fx - top) * fy;
}

static double knife(double v) { return v <= -0.78 ? 0 : 6.9 + 20 * log10(sqrt((v - 0.1) * (v - 0.1) + 1) + v - 0.1); }

static double bullington(const double *d, const double *g, int n, double h1, double h2, double lambda, double ce) {
  double total = d[n - 1], direct = (h2 - h1) / total, s1 = -INFINITY, s2 = -INFINITY, vmax = -INFINITY, k;
  for (int i = 1; i < n - 1; i++) {
    double di = d[i], rest = total - di, raised = (g ? g[i] : 0) + 500 * ce * di * rest;
    double a = (raised - h1) / di, b = (raised - h2) / rest;
    if (a > s1) s1 = a;
    if (b > s2) s2 = b;
    double v = (raised - (h1 * rest + h2 * di) / total) * sqrt(0.002 * total / (lambda * di * rest));
    if (v > vmax) vmax = v;
  }
  if (s1 < direct) k = knife(vmax);
  else {
    double db = (h2 - h1 + s2 * total) / (s1 + s2);
    k = knife((h1 + s1 * db - (h1 * (total - db) + h2 * db) / total) * sqrt(0.002 * total / (lambda * db * (total - db))));
  }
  return k + (1 - exp(-k / 6)) * (10 + 0.02 * total);
}

static void smooth(const double *d, const double *g, int n, double tx, double rx, double *h1, double *h2) {
  double total = d[n - 1], v1 = 0, v2 = 0, obstruction = -INFINITY, ft = -INFINITY, fr = -INFINITY;
  for (int i = 1; i < n; i++) {
    double step = d[i] - d[i - 1];
    v1 += step * (g[i] + g[i - 1]);
    v2 += step * (g[i] * (2 * d[i] + d[i - 1]) + g[i - 1] * (d[i] + 2 * d[i - 1]));
  }
  double start = (2 * v1 * total - v2) / (total * total), end = (v2 - v1 * total) / (total * total);
  for (int i = 1; i < n - 1; i++) {
    double h = g[i] - (tx * (total - d[i]) + rx * d[i]) / total;
    if (h > obstruction) obstruction = h;
    if (h / d[i] > ft) ft = h / d[i];
    if (h / (total - d[i]) > fr) fr = h / (total - d[i]);
  }
  if (obstruction > 0) {
    start -= obstruction * ft / (ft + fr);
    end -= obstruction * fr / (ft + fr);
  }
  *h1 = tx - (start < g[0] ? start : g[0]);
  *h2 = rx - (end < g[n - 1] ? end : g[n - 1]);
}

static double now(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return t.tv_sec * 1e9 + t.tv_nsec;
}

int main(int argc, char **argv) {
  if (argc < 4) return 2;
  FILE *f = fopen(argv[1], "rb");
  if (!f) return 2;
  double meta[3];
  int32_t s, shape[2];
  if (fread(&s, 4, 1, f) != 1 || fread(meta, 8, 3, f) != 3) return 2;
  side = s, south = meta[0], west = meta[1], degrees = meta[2];
  grid = malloc((size_t)side * side * 2);
  if (fread(grid, 2, (size_t)side * side, f) != (size_t)side * side || fread(shape, 4, 2, f) != 2) return 2;
  int lines = shape[0], n = shape[1], rounds = atoi(argv[3]);
  double *lat = malloc(8L * lines * n), *lon = malloc(8L * lines * n), *dist = malloc(8L * lines * n), eye;
  if (fread(lat, 8, (size_t)lines * n, f) != (size_t)lines * n || fread(lon, 8, (size_t)lines * n, f) != (size_t)lines * n || fread(dist, 8, (size_t)lines * n, f) != (size_t)lines * n || fread(&eye, 8, 1, f) != 1) return 2;
  double *g = malloc(8L * n), sum = 0, flat = 0, best = INFINITY;
  const double ae = 4.0 / 3 * 6371, lambda = 299.792458 / 806;
  for (int r = 0; r < rounds; r++) {
    double t = now();
    sum = 0;
    for (int l = 0; l < lines; l++) {
      const double *la = lat + (long)l * n, *lo = lon + (long)l * n, *d = dist + (long)l * n;
      if (!strcmp(argv[2], "horizon")) {
        double top = -INFINITY;
        for (int i = 0; i < n; i++) {
          double h = height(la[i], lo[i]), slope = (h - d[i] * d[i] / (2 * 4.0 / 3 * 6371000) - eye) / d[i];
          if (slope > top) top = slope;
        }
        sum += atan(top) * 180 / M_PI;
      } else {
        for (int i = 0; i < n; i++) g[i] = height(la[i], lo[i]);
        for (int h = 0; h < 3; h++) {
          double tx = g[0] + 3 + 4 * h, rx = g[n - 1] + 30, h1, h2;
          smooth(d, g, n, tx, rx, &h1, &h2);
          sum += bullington(d, g, n, tx, rx, lambda, 1 / ae);
          flat += bullington(d, NULL, n, h1, h2, lambda, 1 / ae);
        }
      }
    }
    t = now() - t;
    if (t < best) best = t;
  }
  printf("%.0f %.9f %.9f\n", best, sum, flat);
  return 0;
}
