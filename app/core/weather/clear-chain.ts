/** The odds of a clear night by what the one before was. */
export interface ClearAfter {
  readonly afterClear: number;
  readonly afterCloud: number;
}

/**
 * How clear nights follow each other, two nights with chances of their own: both keep their chances, and they are correlated by r
 * (Gabriel & Neumann 1962, QJRMS 88, 90, for a constant chance; MATHS 6.5 for chances that are forecasts). Chaining p + r(1 − p) over
 * chances that already know of the night before would count persistence twice.
 */
export function clearAfter(first: number, second: number, r: number): ClearAfter {
  const wanted = first * second + r * Math.sqrt(first * (1 - first) * second * (1 - second));
  const both = Math.min(Math.min(first, second), Math.max(Math.max(0, first + second - 1), wanted));
  return {
    afterClear: first > 0 ? both / first : second,
    afterCloud: first < 1 ? (second - both) / (1 - first) : second,
  };
}
