import { createContext } from "react-router";

/** The nonce of the page being rendered. */
export const nonceContext = createContext<string>("");

/** The fixed instant a demo runs on, in ms; null = the real clock. */
export const nowContext = createContext<number | null>(null);

/** Reads the demo's fixed instant from ZENITHAR_DEMO_NOW (ISO 8601); null without it. Throws on a date that is none. */
export function demoNow(): number | null {
  const text = process.env["ZENITHAR_DEMO_NOW"];
  if (!text) return null;
  const ms = Date.parse(text);
  if (Number.isNaN(ms)) throw new RangeError(`ZENITHAR_DEMO_NOW is no ISO 8601 instant: ${text}`);
  return ms;
}
