// The loops of points.ts, spheres.ts, sphereTree.ts and triangleTree.ts for the machine:
// AssemblyScript, compiled to WebAssembly with 128-bit SIMD by `npm run kernels` into `module.ts`.
// Each is tested equal to its plain form, which says what it does; here stands only how. Pointers
// are bytes.

/**
 * Two points at a time. `points` may be read, and `screen` and `outside` written, one point past
 * the last.
 */
export function projectPoints(k: usize, perspective: bool, points: usize, count: i32, screen: usize, outside: usize): void {
  const ex = splat(k, 0), ey = splat(k, 1), ez = splat(k, 2);
  const rx = splat(k, 3), ry = splat(k, 4), rz = splat(k, 5);
  const ux = splat(k, 6), uy = splat(k, 7), uz = splat(k, 8);
  const fx = splat(k, 9), fy = splat(k, 10), fz = splat(k, 11);
  const near = splat(k, 12), far = splat(k, 13);
  const cxr = splat(k, 14), cxw = splat(k, 15), cyu = splat(k, 16), cyw = splat(k, 17);
  const ox = splat(k, 18), sx = splat(k, 19), oy = splat(k, 20), sy = splat(k, 21), od = splat(k, 22), sd = splat(k, 23);
  const one = f64x2.splat(1), zero = f64x2.splat(0);
  for (let i = 0; i < count; i += 2) {
    const a = v128.load(points), b = v128.load(points, 16), c = v128.load(points, 32);
    const x = f64x2.sub(v128.shuffle<f64>(a, b, 0, 3), ex);
    const y = f64x2.sub(v128.shuffle<f64>(a, c, 1, 2), ey);
    const z = f64x2.sub(v128.shuffle<f64>(b, c, 0, 3), ez);
    const f = dot(x, y, z, fx, fy, fz);
    const w = perspective ? f : one;
    const cx = f64x2.add(f64x2.mul(dot(x, y, z, rx, ry, rz), cxr), f64x2.mul(w, cxw));
    const cy = f64x2.add(f64x2.mul(dot(x, y, z, ux, uy, uz), cyu), f64x2.mul(w, cyw));
    const seen = f64x2.gt(w, zero);
    const inverse = f64x2.div(one, w);
    const px = v128.and(seen, f64x2.add(ox, f64x2.mul(f64x2.mul(cx, inverse), sx)));
    const py = v128.and(seen, f64x2.add(oy, f64x2.mul(f64x2.mul(cy, inverse), sy)));
    const pd = v128.and(seen, f64x2.add(od, f64x2.mul(perspective ? inverse : f, sd)));
    v128.store(screen, v128.shuffle<f64>(px, py, 0, 2));
    v128.store(screen, v128.shuffle<f64>(pd, px, 0, 3), 16);
    v128.store(screen, v128.shuffle<f64>(py, pd, 1, 3), 32);
    const minus = f64x2.neg(w);
    let bits = v128.and(f64x2.lt(cx, minus), i64x2.splat(1));
    bits = v128.or(bits, v128.and(f64x2.gt(cx, w), i64x2.splat(2)));
    bits = v128.or(bits, v128.and(f64x2.lt(cy, minus), i64x2.splat(4)));
    bits = v128.or(bits, v128.and(f64x2.gt(cy, w), i64x2.splat(8)));
    bits = v128.or(bits, v128.and(f64x2.lt(f, near), i64x2.splat(16)));
    bits = v128.or(bits, v128.and(f64x2.gt(f, far), i64x2.splat(32)));
    bits = v128.or(bits, v128.andnot(i64x2.splat(64), seen));
    store<u8>(outside, <u8>i64x2.extract_lane(bits, 0));
    store<u8>(outside, <u8>i64x2.extract_lane(bits, 1), 1);
    points += 48;
    screen += 48;
    outside += 2;
  }
}

// @ts-ignore: decorator
@inline
function splat(at: usize, index: usize): v128 {
  return v128.load64_splat(at + (index << 3));
}

// @ts-ignore: decorator
@inline
function dot(x: v128, y: v128, z: v128, nx: v128, ny: v128, nz: v128): v128 {
  return f64x2.add(f64x2.add(f64x2.mul(x, nx), f64x2.mul(y, ny)), f64x2.mul(z, nz));
}

/** Two spheres at a time; `spheres` may be read and `verdicts` written one past the last. */
export function classifySpheres(planes: usize, planeCount: i32, spheres: usize, count: i32, verdicts: usize): void {
  const end = planes + (planeCount << 5);
  for (let i = 0; i < count; i += 2) {
    const a = v128.load(spheres), b = v128.load(spheres, 16), c = v128.load(spheres, 32), d = v128.load(spheres, 48);
    const x = v128.shuffle<f64>(a, c, 0, 2), y = v128.shuffle<f64>(a, c, 1, 3);
    const z = v128.shuffle<f64>(b, d, 0, 2), r = v128.shuffle<f64>(b, d, 1, 3);
    let least = f64x2.splat(Infinity);
    for (let p = planes; p < end; p += 32)
      least = f64x2.pmin(
        least,
        f64x2.add(dot(x, y, z, v128.load64_splat(p), v128.load64_splat(p, 8), v128.load64_splat(p, 16)), v128.load64_splat(p, 24)),
      );
    const verdict = i64x2.sub(
      i64x2.sub(i64x2.splat(0), f64x2.ge(least, f64x2.neg(r))),
      v128.and(f64x2.gt(least, r), f64x2.ge(least, f64x2.neg(r))),
    );
    store<u8>(verdicts, <u8>i64x2.extract_lane(verdict, 0));
    store<u8>(verdicts, <u8>i64x2.extract_lane(verdict, 1), 1);
    spheres += 64;
    verdicts += 2;
  }
}

/** The boxes of the nodes over the spheres, and the spheres in tree order. */
export function gatherSpheres(order: usize, moved: usize, spheres: usize, bounds: usize, count: i32, fanOut: i32): void {
  for (let k = 0; k < count; ) {
    let low = f64x2.splat(Infinity), lowZ = f64x2.splat(Infinity);
    let high = f64x2.splat(-Infinity), highZ = f64x2.splat(-Infinity);
    const end = min(k + fanOut, count);
    for (; k < end; k++) {
      const from = moved + (<usize>load<u32>(order) << 5);
      const xy = v128.load(from), zr = v128.load(from, 16);
      v128.store(spheres, xy);
      v128.store(spheres, zr, 16);
      const r = v128.shuffle<f64>(zr, zr, 1, 1);
      low = f64x2.pmin(low, f64x2.sub(xy, r));
      lowZ = f64x2.pmin(lowZ, f64x2.sub(zr, r));
      high = f64x2.pmax(high, f64x2.add(xy, r));
      highZ = f64x2.pmax(highZ, f64x2.add(zr, r));
      order += 4;
      spheres += 32;
    }
    v128.store(bounds, low);
    v128.store(bounds, v128.shuffle<f64>(lowZ, high, 0, 2), 16);
    v128.store(bounds, v128.shuffle<f64>(high, highZ, 1, 2), 32);
    bounds += 48;
  }
}

/** The boxes of one level from those of the level below. */
export function boundLevel(below: usize, count: i32, above: usize, fanOut: i32): void {
  for (let k = 0; k < count; ) {
    let a = v128.load(below), b = v128.load(below, 16), c = v128.load(below, 32);
    const end = min(k + fanOut, count);
    for (k++, below += 48; k < end; k++, below += 48) {
      a = f64x2.pmin(a, v128.load(below));
      const next = v128.load(below, 16);
      b = v128.shuffle<f64>(f64x2.pmin(b, next), f64x2.pmax(b, next), 0, 3);
      c = f64x2.pmax(c, v128.load(below, 32));
    }
    v128.store(above, a);
    v128.store(above, b, 16);
    v128.store(above, c, 32);
    above += 48;
  }
}

const slackShare: f64 = 1e-12;

/** The nearest triangle, or −1; its t is written to `result`. `stack` has room for 4 KiB. */
export function firstTriangle(
  bounds: usize, levels: usize, levelCount: i32, order: usize, corners: usize, count: i32, fanOut: i32, stack: usize,
  ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, from: f64, to: f64, facing: i32, result: usize,
): i32 {
  const ix = 1 / (abs(dx) < 1e-150 ? 1e-150 : dx), iy = 1 / (abs(dy) < 1e-150 ? 1e-150 : dy), iz = 1 / (abs(dz) < 1e-150 ? 1e-150 : dz);
  const oxy = f64x2.replace_lane(f64x2.splat(ox), 1, oy), ozz = f64x2.splat(oz);
  const ixy = f64x2.replace_lane(f64x2.splat(ix), 1, iy), izz = f64x2.splat(iz);
  let best = to;
  let found = -1;
  // An entry is (where the ray enters: f64; node: i32; level: i32).
  let top = stack + 16;
  store<f64>(stack, from);
  store<i32>(stack, 0, 8);
  store<i32>(stack, levelCount - 1, 12);
  while (top > stack) {
    top -= 16;
    if (load<f64>(top) > best) continue;
    const level = load<i32>(top, 12);
    const start = load<i32>(top, 8) * fanOut;
    if (level > 0) {
      const below = load<u32>(levels + ((level - 1) << 2));
      const end = min(start + fanOut, <i32>(load<u32>(levels + (level << 2)) - below));
      const base = top;
      let box = bounds + <usize>(below + start) * 48;
      for (let child = start; child < end; child++, box += 48) {
        const b = v128.load(box, 16), c = v128.load(box, 32);
        const lows = f64x2.mul(f64x2.sub(v128.load(box), oxy), ixy);
        const highs = f64x2.mul(f64x2.sub(v128.shuffle<f64>(b, c, 1, 2), oxy), ixy);
        const z = f64x2.mul(f64x2.sub(v128.shuffle<f64>(b, c, 0, 3), ozz), izz);
        const flipped = v128.shuffle<f64>(z, z, 1, 0);
        let near = f64x2.pmax(f64x2.pmin(lows, highs), f64x2.pmin(z, flipped));
        let far = f64x2.pmin(f64x2.pmax(lows, highs), f64x2.pmax(z, flipped));
        near = f64x2.pmax(near, v128.shuffle<f64>(near, near, 1, 0));
        far = f64x2.pmin(far, v128.shuffle<f64>(far, far, 1, 0));
        let enter = f64x2.extract_lane(near, 0);
        let leave = f64x2.extract_lane(far, 0);
        const slack = (abs(enter) + abs(leave)) * slackShare;
        enter -= slack;
        leave += slack;
        if (enter < from) enter = from;
        if (enter > leave || enter > best) continue;
        let at = top;
        top += 16;
        while (at > base && load<f64>(at - 16) < enter) {
          v128.store(at, v128.load(at - 16));
          at -= 16;
        }
        store<f64>(at, enter);
        store<i32>(at, child, 8);
        store<i32>(at, level - 1, 12);
      }
      continue;
    }
    const end = min(start + fanOut, count);
    for (let k = start; k < end; k++) {
      const c = corners + <usize>k * 72;
      const x0 = load<f64>(c), y0 = load<f64>(c, 8), z0 = load<f64>(c, 16);
      const abx = load<f64>(c, 24) - x0, aby = load<f64>(c, 32) - y0, abz = load<f64>(c, 40) - z0;
      const acx = load<f64>(c, 48) - x0, acy = load<f64>(c, 56) - y0, acz = load<f64>(c, 64) - z0;
      const px = dy * acz - dz * acy, py = dz * acx - dx * acz, pz = dx * acy - dy * acx;
      const det = abx * px + aby * py + abz * pz;
      if (det == 0 || (facing != 0 && det * <f64>facing < 0)) continue;
      const sx = ox - x0, sy = oy - y0, sz = oz - z0;
      const u = (sx * px + sy * py + sz * pz) / det;
      if (u < 0 || u > 1) continue;
      const qx = sy * abz - sz * aby, qy = sz * abx - sx * abz, qz = sx * aby - sy * abx;
      const v = (dx * qx + dy * qy + dz * qz) / det;
      if (v < 0 || u + v > 1) continue;
      const t = (acx * qx + acy * qy + acz * qz) / det;
      const index = <i32>load<u32>(order + (k << 2));
      if (t < from || t > best || (t == best && found >= 0 && index > found)) continue;
      best = t;
      found = index;
    }
  }
  store<f64>(result, best);
  return found;
}

/**
 * Orders the items low…high (high left out); `centres` has three doubles an item, `order` one word.
 */
export function halve(centres: usize, order: usize, low: i32, high: i32, run: i32, fanOut: i32): void {
  while (run >= high - low && run > 1) run /= fanOut;
  if (run < fanOut) return;
  let lowXy = f64x2.splat(Infinity), highXy = f64x2.splat(-Infinity);
  let lz: f64 = Infinity, hz: f64 = -Infinity;
  const end = centres + <usize>high * 24;
  for (let at = centres + <usize>low * 24; at < end; at += 24) {
    const xy = v128.load(at), z = load<f64>(at, 16);
    lowXy = f64x2.pmin(lowXy, xy);
    highXy = f64x2.pmax(highXy, xy);
    lz = min(lz, z);
    hz = max(hz, z);
  }
  const span = f64x2.sub(highXy, lowXy);
  const sx = f64x2.extract_lane(span, 0), sy = f64x2.extract_lane(span, 1), sz = hz - lz;
  const axis = sx >= sy && sx >= sz ? 0 : sy >= sz ? 1 : 2;
  const middle = low + (((high - low + run - 1) / run) >> 1) * run;
  select(centres, order, centres + (axis << 3), low, high - 1, middle);
  halve(centres, order, low, middle, run, fanOut);
  halve(centres, order, middle, high, run, fanOut);
}

/** `along` is `centres` moved on to the axis asked for. */
function select(centres: usize, order: usize, along: usize, low: i32, high: i32, k: i32): void {
  while (high > low) {
    if (high - low > 600) {
      const n = <f64>(high - low + 1);
      const share = <f64>(k - low + 1) / n;
      const sample = 3 * sqrt(n);
      const deviation = 2 * sqrt(sample) * (share < 0.5 ? -1 : 1);
      const from = max(low, <i32>floor(<f64>k - share * sample + deviation));
      const to = min(high, <i32>floor(<f64>k + (1 - share) * sample + deviation));
      select(centres, order, along, from, to, k);
    }
    const pivot = load<f64>(along + <usize>k * 24);
    let i = low;
    let j = high;
    while (i <= j) {
      while (load<f64>(along + <usize>i * 24) < pivot) i++;
      while (load<f64>(along + <usize>j * 24) > pivot) j--;
      if (i > j) break;
      const a = centres + <usize>i * 24, b = centres + <usize>j * 24;
      const xy = v128.load(a), z = load<f64>(a, 16);
      v128.store(a, v128.load(b));
      store<f64>(a, load<f64>(b, 16), 16);
      v128.store(b, xy);
      store<f64>(b, z, 16);
      const first = order + (<usize>i << 2), second = order + (<usize>j << 2);
      const item = load<u32>(first);
      store<u32>(first, load<u32>(second));
      store<u32>(second, item);
      i++;
      j--;
    }
    if (k <= j) high = j;
    else if (k >= i) low = i;
    else return;
  }
}
