import type { Channel, Filter } from "~/core/exposure";

const PATTERNS: readonly (readonly [RegExp, Channel])[] = [
  [/\b(l-?e(xt|nh|xtreme)|dual|duo|hoo|ha\s*[+/&-]\s*o)/i, "Dual"],
  [/\b(s-?ii|s2|sulph?ur)\b/i, "SII"],
  [/\b(o-?iii|o3|oxygen)\b/i, "OIII"],
  [/\b(h-?a(lpha)?|hydrogen|h\s?α)\b/i, "Ha"],
  [/^(l|lum(inance)?|clear|l')$/i, "L"],
  [/^(r|red)\b/i, "R"],
  [/^(g|green)\b/i, "G"],
  [/^(b|blue)\b/i, "B"],
  [/^(colou?r|osc|rgb|none|no filter)$/i, "Colour"],
];

/** The channel a filter name in a header means: a filter of the rig by its own name, else by common ways of writing; null when unsure. */
export function channelOfFilter(name: string, filters: readonly Filter[]): Channel | null {
  const own = filters.find((f) => f.name.trim().toLowerCase() === name.trim().toLowerCase());
  if (own) return own.channel;
  return PATTERNS.find(([pattern]) => pattern.test(name.trim()))?.[1] ?? null;
}
