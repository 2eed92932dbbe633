/** Value at fractional index `x` of evenly spaced samples by the cubic through the four nearest (Lagrange); needs four samples, `x` in [0, length − 1]. */
export function cubicAt(samples: ArrayLike<number>, x: number): number {
  const i = Math.min(Math.max(Math.floor(x) - 1, 0), samples.length - 4);
  const t = x - i;
  const [a, b, c, d] = [samples[i]!, samples[i + 1]!, samples[i + 2]!, samples[i + 3]!];
  const [t1, t2, t3] = [t - 1, t - 2, t - 3];
  return (-a * t1 * t2 * t3) / 6 + (b * t * t2 * t3) / 2 - (c * t * t1 * t3) / 2 + (d * t * t1 * t2) / 6;
}

/** Value at `x` of the broken line through points with rising `x`; held constant beyond the ends. */
export function linearAt(points: readonly { readonly x: number; readonly y: number }[], x: number): number {
  const after = points.findIndex((p) => p.x >= x);
  if (after === -1) return points.at(-1)?.y ?? Number.NaN;
  const q = points[after]!;
  const p = points[after - 1];
  if (!p || q.x === p.x) return q.y;
  return p.y + ((q.y - p.y) * (x - p.x)) / (q.x - p.x);
}
