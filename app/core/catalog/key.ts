const WORDS: Readonly<Record<string, string>> = {
  MESSIER: "M", CALDWELL: "C", BARNARD: "B", LYNDS: "LDN", COLLINDER: "CR", MELOTTE: "MEL", TRUMPLER: "TR", CEDERBLAD: "CED", BERNES: "BE",
  HICKSON: "HCG", ACO: "ABELL",
}; // prettier-ignore

const plain = (text: string) =>
  text.normalize("NFKD").replaceAll(/\p{M}/gu, "").toUpperCase().replaceAll(/[’‘`]/g, "'").trim();

/**
 * A designation or name brought to the one form under which it is looked up: "m 031", "Messier 31" and "M31" agree, and
 * so do "Sh 2-101", "sharpless 101" and "Sh2-101". Names that carry coordinates (PK, PN G, SNR G) keep their signs.
 */
export function searchKey(text: string): string {
  const t = plain(text);
  if (/^(PK|PN\s*G|SNR\s*G)/.test(t)) return t.replaceAll(/\s+/g, "").replaceAll(/(?<=[A-Z+-])0+(?=\d)/g, "");
  if (/^(ESO|VV|MCG)/.test(t)) return t.replaceAll(/\s+/g, "");
  const joined = t.replaceAll(/[\s\-._'/]/g, "");
  const sharpless = /^SH\s*2[\s-]*0*(\d+)$|^SHARPLESS(?:\s*2\s*-)?\s*0*(\d+)$/.exec(t);
  if (sharpless) return `SH2${sharpless[1] ?? sharpless[2]}`;
  const numbered = /^([A-Z]+)0*(\d+)([A-Z]?)$/.exec(joined);
  if (!numbered) return joined;
  const [, word, number, suffix] = numbered as unknown as [string, string, string, string];
  return `${WORDS[word] ?? word}${number}${suffix}`;
}

/** The words of a name for searching by beginnings: upper case, without marks, three letters or more. */
export const wordKey = (name: string): string[] =>
  plain(name)
    .split(/[^A-Z0-9]+/)
    .filter((w) => w.length >= 3);
