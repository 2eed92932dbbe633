/** The smallest of `values` that at least `share` (0–1) of them do not exceed; NaN for an empty list. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil(share * sorted.length) - 1)] ?? Number.NaN;
}
