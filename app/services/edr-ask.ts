import { forecastOfCoverage } from "~/core/formats";
import { addMs, HOUR_MS, utcMs, type UtcMs } from "~/core/time";

/** A forecast service by OGC API - Environmental Data Retrieval. */
export interface EdrService {
  readonly collection: URL;
  readonly name: string;
  /** As the service asks to be named beside its numbers. */
  readonly credit: string;
  readonly keyHeader: string;
  /** "" = it wants none. */
  readonly key: string;
  /** Parameters asked for; "" = all it has. */
  readonly parameters: string;
}

/** How long a service may take, ms; and how much it may send, bytes. */
const LIMIT_MS = 6000;
const MOST_BYTES = 2_000_000;

/** So far ahead a forecast is asked for, hours. */
const AHEAD_HOURS = 96;

/** A place goes out to a hundredth of a degree, about a kilometre: no forecast is finer. */
const rounded = (deg: number): string => (Math.round(deg * 100) / 100).toFixed(2);

/** What comes of asking: a forecast in the app's own form, or why there is none. */
export interface EdrAnswer {
  readonly status: number;
  readonly body: string;
}

const refusal = (status: number, error: string): EdrAnswer => ({ status, body: JSON.stringify({ error }) });

/** Reads no more than is allowed; null when there is more. */
async function readLimited(response: Response): Promise<string | null> {
  const said = Number(response.headers.get("content-length") ?? 0);
  if (said > MOST_BYTES || !response.body) return said > MOST_BYTES ? null : "";
  const reader = response.body.getReader();
  const decoder = new TextDecoder();
  let text = "";
  let bytes = 0;
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    bytes += piece.value.byteLength;
    if (bytes > MOST_BYTES) {
      await reader.cancel();
      return null;
    }
    text += decoder.decode(piece.value, { stream: true });
  }
  return text + decoder.decode();
}

/** When an answer was made: as its header says, where that is a time of the last days, else when it was asked for. */
function issuedAt(header: string | null, nowMs: UtcMs): string {
  const said = header === null ? Number.NaN : Date.parse(header);
  const isLikely = said <= nowMs && said > nowMs - 72 * HOUR_MS;
  return new Date(isLikely ? said : nowMs).toISOString();
}

/** The position query of a service, for a place and the days to come. */
export function edrQuery(
  service: EdrService,
  at: { readonly lat: number; readonly lon: number; readonly nowMs: UtcMs },
): URL {
  const url = new URL(service.collection);
  url.pathname = `${url.pathname.replace(/\/$/, "")}/position`;
  const iso = (ms: number) => `${new Date(ms).toISOString().slice(0, 13)}:00:00Z`;
  url.searchParams.set("coords", `POINT(${rounded(at.lon)} ${rounded(at.lat)})`);
  url.searchParams.set("datetime", `${iso(at.nowMs)}/${iso(addMs(at.nowMs, AHEAD_HOURS * HOUR_MS))}`);
  if (service.parameters) url.searchParams.set("parameter-name", service.parameters);
  url.searchParams.set("f", "CoverageJSON");
  return url;
}

/** Asks a service for a place, and converts what it says. Never follows it to another address. */
export async function askEdr(
  service: EdrService,
  at: { readonly lat: number; readonly lon: number; readonly nowMs: number },
  signal: AbortSignal,
): Promise<EdrAnswer> {
  const nowMs = utcMs(at.nowMs);
  const stop = AbortSignal.any([signal, AbortSignal.timeout(LIMIT_MS)]);
  let response: Response;
  let text: string | null;
  try {
    response = await fetch(edrQuery(service, { ...at, nowMs }), {
      signal: stop,
      redirect: "error",
      headers: {
        Accept: "application/prs.coverage+json, application/json",
        ...(service.key ? { [service.keyHeader]: service.key } : {}),
      },
    });
    text = response.ok ? await readLimited(response) : "";
  } catch (error) {
    const isLate = error instanceof Error && error.name === "TimeoutError";
    return refusal(
      isLate ? 504 : 502,
      isLate ? "the forecast service took too long" : "the forecast service cannot be reached",
    );
  }
  if (!response.ok) return refusal(502, `the forecast service answered ${response.status}`);
  if (text === null) return refusal(502, "the forecast service sent more than 2 MB");
  const forecast = forecastOfCoverage(text, {
    id: "edr",
    name: service.name,
    credit: service.credit,
    latitudeDeg: Number(rounded(at.lat)),
    longitudeDeg: Number(rounded(at.lon)),
    issued: issuedAt(response.headers.get("last-modified"), nowMs),
  });
  if (!forecast.ok) return refusal(502, `the forecast service’s answer does not read: ${forecast.error.found}`);
  return { status: 200, body: forecast.value };
}
