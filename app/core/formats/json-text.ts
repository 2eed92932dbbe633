import { err, ok, type Result } from "~/core/result";

/** Why a text is not taken as JSON. */
export interface JsonFault {
  readonly code: "jsonNone" | "jsonTooDeep";
  readonly found: string;
}

/** No file of this app nests deeper than a dozen. */
const MOST_DEPTH = 64;
const BARE = /(?:-?Infinity|NaN)/y;

/**
 * Reads JSON that is not trusted, in one pass before the parser: nesting is bounded, since whatever walks a value later would
 * run out of stack, and bare NaN and Infinity, which are no JSON but common, become null.
 */
export function readJson(text: string): Result<unknown, JsonFault> {
  let depth = 0;
  let isString = false;
  const cuts: { readonly from: number; readonly to: number }[] = [];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (isString) {
      if (c === 92) i++;
      else if (c === 34) isString = false;
    } else if (c === 34) isString = true;
    else if (c === 91 || c === 123) {
      if (++depth > MOST_DEPTH) return err({ code: "jsonTooDeep", found: `more than ${MOST_DEPTH} levels` });
    } else if (c === 93 || c === 125) depth--;
    else if (c === 78 || c === 73 || c === 45) {
      BARE.lastIndex = i;
      const match = BARE.exec(text);
      if (!match) continue;
      cuts.push({ from: i, to: i + match[0].length });
      i += match[0].length - 1;
    }
  }
  let [clean, at] = ["", 0];
  for (const { from, to } of cuts) {
    clean += text.slice(at, from) + "null";
    at = to;
  }
  try {
    return ok(JSON.parse(cuts.length === 0 ? text : clean + text.slice(at)) as unknown);
  } catch {
    return err({ code: "jsonNone", found: text.slice(0, 40) });
  }
}
