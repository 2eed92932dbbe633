import { createContext } from "react-router";
import type { EdrNotice } from "~/services/edr";
import { edrOf, noticeOf } from "./edr.server";
import { surveysOf } from "./surveys.server";

/** The nonce of the page being rendered. */
export const nonceContext = createContext<string>("");

/** The fixed instant a demo runs on, in ms; null = the real clock. */
export const nowContext = createContext<number | null>(null);

/** Whether the page is made for a host of files, without this server behind it. */
export const isStatic = (): boolean => process.env["ZENITHAR_STATIC"] === "yes";

/** The forecast service that the operator set up, as pages name it; null = there is none. */
export const forecastNotice = (): EdrNotice | null => noticeOf(edrOf(process.env), isStatic());

/** Names of the surveys whose pictures this server hands on; a page without a server behind it has none. */
export const surveyNames = (): readonly string[] => (isStatic() ? [] : surveysOf(process.env).map(({ id }) => id));

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
