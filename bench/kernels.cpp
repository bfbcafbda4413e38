// The loops of core/kernels once more, in C++, for `npm run bench`: double precision, one thread, the same arrays from the same files.
// Usage: kernels DIRECTORY ROUNDS; prints one JSON object of median milliseconds (per ray in microseconds).
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <vector>

// How many children a node of the trees has: `fanOut` of core/kernels/tree.ts.
static const size_t fanOut = 4;

using Clock = std::chrono::steady_clock;

template <class T> static std::vector<T> load(const std::string &path) {
  std::FILE *file = std::fopen(path.c_str(), "rb");
  if (!file) { std::fprintf(stderr, "cannot read %s\n", path.c_str()); std::exit(1); }
  std::fseek(file, 0, SEEK_END);
  const long bytes = std::ftell(file);
  std::fseek(file, 0, SEEK_SET);
  std::vector<T> out(bytes / sizeof(T));
  if (std::fread(out.data(), sizeof(T), out.size(), file) != out.size()) std::exit(1);
  std::fclose(file);
  return out;
}

template <class F> static double median(int rounds, F run) {
  std::vector<double> times;
  for (int i = 0; i < rounds; i++) {
    const auto start = Clock::now();
    run();
    times.push_back(std::chrono::duration<double, std::milli>(Clock::now() - start).count());
  }
  std::sort(times.begin(), times.end());
  return times[times.size() / 2];
}

static void projectPoints(const double *k, bool perspective, const double *points, size_t count, double *screen, uint8_t *outside) {
  for (size_t i = 0, j = 0; i < count; i++, j += 3) {
    const double x = points[j] - k[0], y = points[j + 1] - k[1], z = points[j + 2] - k[2];
    const double f = x * k[9] + y * k[10] + z * k[11];
    const double w = perspective ? f : 1;
    const double cx = (x * k[3] + y * k[4] + z * k[5]) * k[14] + w * k[15];
    const double cy = (x * k[6] + y * k[7] + z * k[8]) * k[16] + w * k[17];
    const bool seen = w > 0;
    const double inverse = seen ? 1 / w : 0;
    screen[j] = seen ? k[18] + cx * inverse * k[19] : 0;
    screen[j + 1] = seen ? k[20] + cy * inverse * k[21] : 0;
    screen[j + 2] = seen ? k[22] + (perspective ? inverse : f) * k[23] : 0;
    outside[i] = (cx < -w ? 1 : 0) | (cx > w ? 2 : 0) | (cy < -w ? 4 : 0) | (cy > w ? 8 : 0) | (f < k[12] ? 16 : 0) |
                 (f > k[13] ? 32 : 0) | (seen ? 0 : 64);
  }
}

static void classifySpheres(const double *planes, size_t end, const double *spheres, size_t count, uint8_t *verdicts) {
  for (size_t i = 0, j = 0; i < count; i++, j += 4) {
    const double x = spheres[j], y = spheres[j + 1], z = spheres[j + 2], r = spheres[j + 3];
    int verdict = 2;
    for (size_t p = 0; p < end; p += 4) {
      const double d = planes[p] * x + planes[p + 1] * y + planes[p + 2] * z + planes[p + 3];
      if (d < -r) { verdict = 0; break; }
      if (d <= r) verdict = 1;
    }
    verdicts[i] = verdict;
  }
}

// Where a ray meets a triangle of nine numbers, or `best` when not nearer.
static inline bool meets(const double *c, const double *o, const double *d, double from, double &best) {
  const double abx = c[3] - c[0], aby = c[4] - c[1], abz = c[5] - c[2];
  const double acx = c[6] - c[0], acy = c[7] - c[1], acz = c[8] - c[2];
  const double px = d[1] * acz - d[2] * acy, py = d[2] * acx - d[0] * acz, pz = d[0] * acy - d[1] * acx;
  const double det = abx * px + aby * py + abz * pz;
  if (det == 0) return false;
  const double sx = o[0] - c[0], sy = o[1] - c[1], sz = o[2] - c[2];
  const double u = (sx * px + sy * py + sz * pz) / det;
  if (u < 0 || u > 1) return false;
  const double qx = sy * abz - sz * aby, qy = sz * abx - sx * abz, qz = sx * aby - sy * abx;
  const double v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
  if (v < 0 || u + v > 1) return false;
  const double t = (acx * qx + acy * qy + acz * qz) / det;
  if (t < from || t >= best) return false;
  best = t;
  return true;
}

struct Tree {
  std::vector<double> bounds, corners;
  std::vector<uint32_t> order, levels;
};

static long firstTriangle(const Tree &tree, const double *o, const double *d, double from, double best) {
  static int nodes[256], levelsOf[256];
  static double enters[256];
  const double i[3] = {1 / (d[0] == 0 ? 1e-150 : d[0]), 1 / (d[1] == 0 ? 1e-150 : d[1]), 1 / (d[2] == 0 ? 1e-150 : d[2])};
  const double *bounds = tree.bounds.data();
  const size_t count = tree.order.size();
  int depth = 1;
  nodes[0] = 0;
  levelsOf[0] = (int)tree.levels.size() - 2;
  enters[0] = from;
  long found = -1;
  while (depth > 0) {
    depth--;
    if (enters[depth] > best) continue;
    const int level = levelsOf[depth];
    const size_t start = (size_t)nodes[depth] * fanOut;
    if (level > 0) {
      const size_t below = tree.levels[level - 1];
      const size_t end = std::min(start + fanOut, (size_t)tree.levels[level] - below);
      const int base = depth;
      for (size_t child = start; child < end; child++) {
        const double *b = bounds + (below + child) * 6;
        const double ax = (b[0] - o[0]) * i[0], bx = (b[3] - o[0]) * i[0];
        const double ay = (b[1] - o[1]) * i[1], by = (b[4] - o[1]) * i[1];
        const double az = (b[2] - o[2]) * i[2], bz = (b[5] - o[2]) * i[2];
        double enter = std::max(std::max(std::min(ax, bx), std::min(ay, by)), std::min(az, bz));
        double leave = std::min(std::min(std::max(ax, bx), std::max(ay, by)), std::max(az, bz));
        const double slack = (std::fabs(enter) + std::fabs(leave)) * 1e-12;
        enter -= slack;
        leave += slack;
        if (enter < from) enter = from;
        if (enter > leave || enter > best) continue;
        int k = depth++;
        while (k > base && enters[k - 1] < enter) {
          enters[k] = enters[k - 1];
          nodes[k] = nodes[k - 1];
          levelsOf[k] = levelsOf[k - 1];
          k--;
        }
        enters[k] = enter;
        nodes[k] = (int)child;
        levelsOf[k] = level - 1;
      }
      continue;
    }
    const size_t end = std::min(start + fanOut, count);
    for (size_t k = start; k < end; k++)
      if (meets(tree.corners.data() + k * 9, o, d, from, best)) found = tree.order[k];
  }
  return found;
}

int main(int argc, char **argv) {
  if (argc < 3) return 1;
  const std::string at = std::string(argv[1]) + "/";
  const int rounds = std::atoi(argv[2]);
  const auto kernel = load<double>(at + "kernel.bin");
  const auto points = load<double>(at + "points.bin");
  const auto planes = load<double>(at + "planes.bin");
  const auto spheres = load<double>(at + "spheres.bin");
  std::vector<double> screen(points.size());
  std::vector<uint8_t> outside(points.size() / 3), verdicts(spheres.size() / 4);
  const double project = median(rounds, [&] { projectPoints(kernel.data(), true, points.data(), outside.size(), screen.data(), outside.data()); });
  const double classify = median(rounds, [&] { classifySpheres(planes.data(), planes.size(), spheres.data(), verdicts.size(), verdicts.data()); });

  const Tree tree{load<double>(at + "bounds.bin"), load<double>(at + "corners.bin"), load<uint32_t>(at + "order.bin"), load<uint32_t>(at + "levels.bin")};
  const auto rays = load<double>(at + "rays.bin");
  const size_t count = rays.size() / 6;
  long sum = 0;
  const double trace = median(rounds, [&] { for (size_t r = 0; r < count; r++) sum += firstTriangle(tree, &rays[r * 6], &rays[r * 6 + 3], 0, 1e300); });
  const size_t few = 8;
  long agree = 0;
  const double linear = median(3, [&] {
    for (size_t r = 0; r < few; r++) {
      double best = 1e300;
      long found = -1;
      for (size_t k = 0; k < tree.order.size(); k++)
        if (meets(tree.corners.data() + k * 9, &rays[r * 6], &rays[r * 6 + 3], 0, best)) found = tree.order[k];
      sum += found;
      agree += found == firstTriangle(tree, &rays[r * 6], &rays[r * 6 + 3], 0, 1e300);
    }
  });
  std::printf("{\"project\":%.6f,\"classify\":%.6f,\"ray\":%.6f,\"linearRay\":%.6f,\"agree\":%ld,\"sum\":%ld}\n", project, classify,
              trace * 1000 / count, linear * 1000 / few, agree, sum + (long)outside[7] + verdicts[7]);
}
