/* The delta-Bullington sum of ITU-R P.526-15 §4.5 written plainly in C, to measure the TypeScript kernel against.
   Prints nanoseconds for one path of n samples, and the loss it found. */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

static double knife(double v) { return v <= -0.78 ? 0 : 6.9 + 20 * log10(sqrt((v - 0.1) * (v - 0.1) + 1) + v - 0.1); }

static double bullington(const double *d, const double *g, int n, double h1, double h2, double lam, double ce) {
  double D = d[n - 1], direct = (h2 - h1) / D, s1 = -1e300, s2 = -1e300, vm = -1e300, k;
  for (int i = 1; i < n - 1; i++) {
    double r = D - d[i], up = (g ? g[i] : 0) + 500 * ce * d[i] * r;
    double a = (up - h1) / d[i], b = (up - h2) / r;
    double v = (up - (h1 * r + h2 * d[i]) / D) * sqrt(0.002 * D / (lam * d[i] * r));
    if (a > s1) s1 = a;
    if (b > s2) s2 = b;
    if (v > vm) vm = v;
  }
  if (s1 < direct) k = knife(vm);
  else {
    double db = (h2 - h1 + s2 * D) / (s1 + s2);
    k = knife((h1 + s1 * db - (h1 * (D - db) + h2 * db) / D) * sqrt(0.002 * D / (lam * db * (D - db))));
  }
  return k + (1 - exp(-k / 6)) * (10 + 0.02 * D);
}

static double first_term(double d, double h1, double h2, double f, double ae) {
  double e = 22, s = 0.003, k = 0.36 * pow(ae * f, -1.0 / 3) * pow((e - 1) * (e - 1) + pow(18000 * s / f, 2), -0.25);
  k *= sqrt(e * e + pow(18000 * s / f, 2));
  double b = (1 + 1.6 * k * k + 0.67 * pow(k, 4)) / (1 + 4.5 * k * k + 1.53 * pow(k, 4));
  double x = 2.188 * b * cbrt(f) * pow(ae, -2.0 / 3) * d, y = 9.575e-3 * b * pow(f, 2.0 / 3) * pow(ae, -1.0 / 3), sum = x >= 1.6 ? 11 + 10 * log10(x) - 17.6 * x : -20 * log10(x) - 5.6488 * pow(x, 1.425);
  double h[2] = {h1, h2};
  for (int i = 0; i < 2; i++) {
    double B = b * y * h[i], G = B > 2 ? 17.6 * sqrt(B - 1.1) - 5 * log10(B - 1.1) - 8 : 20 * log10(B + 0.1 * B * B * B), lo = 2 + 20 * log10(k);
    sum += G > lo ? G : lo;
  }
  return -sum;
}

static double sphere(double d, double h1, double h2, double f, double ae) {
  double lam = 299.792458 / f, los = sqrt(2 * ae) * (sqrt(0.001 * h1) + sqrt(0.001 * h2));
  if (d >= los) { double l = first_term(d, h1, h2, f, ae); return l > 0 ? l : 0; }
  double c = (h1 - h2) / (h1 + h2), m = 250 * d * d / (ae * (h1 + h2)), b = 2 * sqrt((m + 1) / (3 * m)) * cos(M_PI / 3 + acos(3 * c / 2 * sqrt(3 * m / pow(m + 1, 3))) / 3);
  double d1 = d / 2 * (1 + b), d2 = d - d1, h = ((h1 - 500 * d1 * d1 / ae) * d2 + (h2 - 500 * d2 * d2 / ae) * d1) / d, req = 17.456 * sqrt(d1 * d2 * lam / d);
  if (h > req) return 0;
  double l = first_term(d, h1, h2, f, 500 * pow(d / (sqrt(h1) + sqrt(h2)), 2));
  return l < 0 ? 0 : (1 - h / req) * l;
}

static double delta_bullington(const double *d, const double *g, int n, double th, double rh, double f) {
  double lam = 299.792458 / f, ae = 6371 * 4.0 / 3, D = d[n - 1], tx = g[0] + th, rx = g[n - 1] + rh, v1 = 0, v2 = 0, ob = -1e300, a = -1e300, b = -1e300;
  double act = bullington(d, g, n, tx, rx, lam, 1 / ae);
  for (int i = 1; i < n; i++) { double s = d[i] - d[i - 1]; v1 += s * (g[i] + g[i - 1]); v2 += s * (g[i] * (2 * d[i] + d[i - 1]) + g[i - 1] * (d[i] + 2 * d[i - 1])); }
  double st = (2 * v1 * D - v2) / (D * D), en = (v2 - v1 * D) / (D * D);
  for (int i = 1; i < n - 1; i++) { double h = g[i] - (tx * (D - d[i]) + rx * d[i]) / D; if (h > ob) ob = h; if (h / d[i] > a) a = h / d[i]; if (h / (D - d[i]) > b) b = h / (D - d[i]); }
  if (ob > 0) { st -= ob * a / (a + b); en -= ob * b / (a + b); }
  if (st > g[0]) st = g[0];
  if (en > g[n - 1]) en = g[n - 1];
  double smooth = bullington(d, 0, n, tx - st, rx - en, lam, 1 / ae), sp = sphere(D, tx - st, rx - en, f, ae) - smooth;
  return act + (sp > 0 ? sp : 0);
}

int main(int argc, char **argv) {
  int n = atoi(argv[1]), rounds = atoi(argv[2]);
  double *d = malloc(n * sizeof *d), *g = malloc(n * sizeof *g), out = 0;
  for (int i = 0; i < n; i++) { d[i] = 60.0 * i / (n - 1); g[i] = 60 + 50 * sin(i * 0.013) + 30 * cos(i * 0.031); }
  struct timespec a, b;
  clock_gettime(CLOCK_MONOTONIC, &a);
  for (int r = 0; r < rounds; r++) out += delta_bullington(d, g, n, 5 + r % 7, 30, 806);
  clock_gettime(CLOCK_MONOTONIC, &b);
  printf("%.1f %.6f\n", ((b.tv_sec - a.tv_sec) * 1e9 + (b.tv_nsec - a.tv_nsec)) / rounds, out / rounds);
  (void)argc;
  return 0;
}
