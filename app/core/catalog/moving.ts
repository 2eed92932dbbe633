/** What moves against the stars and therefore is no target here. */
export type MovingKind = "planet" | "moon" | "sun" | "comet" | "asteroid";

const NAMES: Readonly<Record<string, MovingKind>> = {
  mercury: "planet", venus: "planet", mars: "planet", jupiter: "planet", saturn: "planet", uranus: "planet", neptune: "planet", pluto: "planet",
  moon: "moon", luna: "moon", sun: "sun", ceres: "asteroid", vesta: "asteroid", pallas: "asteroid", juno: "asteroid", comet: "comet", asteroid: "asteroid",
}; // prettier-ignore

const COMET = /^(?:comet\b|[CPDXAI]\/\s*-?\d{1,4}\b|\d{1,3}[PDI](?:\/|\b))/i; // designations of the Minor Planet Center
const ASTEROID = /^(?:asteroid\b|\(\d+\)|(?:18|19|20)\d\d [A-HJ-Y][A-HJ-Z]\d*$)/i;

/** The kind of moving body a query names, by the usual designations; null for anything else. */
export function movingKind(query: string): MovingKind | null {
  const text = query.trim();
  if (COMET.test(text)) return "comet";
  if (ASTEROID.test(text)) return "asteroid";
  return NAMES[text.toLowerCase()] ?? null;
}
