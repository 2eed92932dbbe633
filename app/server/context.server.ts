import { createContext } from "react-router";
import { edrOf, type EdrNotice } from "./edr.server";

/** The nonce of the page being rendered. */
export const nonceContext = createContext<string>("");

/** The fixed instant a demo runs on, in ms; null = the real clock. */
export const nowContext = createContext<number | null>(null);

/** The forecast service that the operator set up, as pages name it; null = there is none. */
export function forecastNotice(): EdrNotice | null {
  const service = edrOf(process.env);
  return service && { name: service.name, credit: service.credit };
}

/** Whether pages are to prepare for use without the server; ZENITHAR_OFFLINE=off says no. */
export const isOfflineOn = (): boolean => process.env["ZENITHAR_OFFLINE"] !== "off";

/** Reads the demo's fixed instant from ZENITHAR_DEMO_NOW (ISO 8601); null without it. Throws on a date that is none. */
export function demoNow(): number | null {
  const text = process.env["ZENITHAR_DEMO_NOW"];
  if (!text) return null;
  const ms = Date.parse(text);
  if (Number.isNaN(ms)) throw new RangeError(`ZENITHAR_DEMO_NOW is no ISO 8601 instant: ${text}`);
  return ms;
}
