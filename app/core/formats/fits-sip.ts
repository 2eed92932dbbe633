/** Moves a pixel offset from the reference pixel to where it would lie without distortion. */
export type Distortion = (u: number, v: number) => readonly [u: number, v: number];

const MOST_ORDER = 9;

interface Term {
  readonly p: number;
  readonly q: number;
  readonly coefficient: number;
}

function termsOf(number: (name: string) => number | null, axis: "A" | "B"): Term[] {
  const order = number(`${axis}_ORDER`) ?? 0;
  if (!(order >= 0) || order > MOST_ORDER) return [];
  const terms: Term[] = [];
  for (let p = 0; p <= order; p++)
    for (let q = 0; p + q <= order; q++) {
      const coefficient = number(`${axis}_${p}_${q}`) ?? 0;
      if (coefficient !== 0) terms.push({ p, q, coefficient });
    }
  return terms;
}

/**
 * SIP distortion of a header: u + Σ A_pq u^p v^q and v + Σ B_pq u^p v^q, offsets in pixels. Shupe et al. 2005, ASPC 347, 491. Null
 * when it has no terms. Orders up to 9.
 */
export function sipOf(number: (name: string) => number | null): Distortion | null {
  const [a, b] = [termsOf(number, "A"), termsOf(number, "B")];
  if (a.length + b.length === 0) return null;
  const sum = (terms: readonly Term[], u: number, v: number) =>
    terms.reduce((total, t) => total + t.coefficient * u ** t.p * v ** t.q, 0);
  return (u, v) => [u + sum(a, u, v), v + sum(b, u, v)];
}
