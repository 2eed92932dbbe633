import type { EdrNotice } from "~/services/edr";
import type { EdrService } from "~/services/edr-ask";

/** Reads the service that the operator set up from the environment; null without an address. Throws on one that cannot be used: a wrong setting should be seen at once. */
export function edrOf(env: Readonly<Record<string, string | undefined>>): EdrService | null {
  const address = env["ZENITHAR_EDR_URL"];
  if (!address) return null;
  if (!URL.canParse(address)) throw new RangeError(`ZENITHAR_EDR_URL is no address: ${address}`);
  const collection = new URL(address);
  const isHere = ["localhost", "127.0.0.1", "[::1]"].includes(collection.hostname);
  if (collection.protocol !== "https:" && !(collection.protocol === "http:" && isHere))
    throw new RangeError("ZENITHAR_EDR_URL must be https; plain http only on this machine");
  if (collection.username !== "" || collection.password !== "")
    throw new RangeError("ZENITHAR_EDR_URL holds a password: give it as ZENITHAR_EDR_KEY");
  return {
    collection,
    name: env["ZENITHAR_EDR_NAME"]?.slice(0, 80) || collection.hostname,
    credit: env["ZENITHAR_EDR_CREDIT"]?.slice(0, 300) ?? "",
    keyHeader: env["ZENITHAR_EDR_KEY_HEADER"] || "Authorization",
    key: env["ZENITHAR_EDR_KEY"] ?? "",
    parameters: env["ZENITHAR_EDR_PARAMETERS"] ?? "",
  };
}

/** What pages say of the service; null where there is none. Where no server stands behind them the browser asks it, so its address goes along. */
export function noticeOf(service: EdrService | null, isStatic: boolean): EdrNotice | null {
  if (!service) return null;
  const { name, credit, collection, parameters } = service;
  return { name, credit, ...(isStatic ? { direct: { collection: collection.href, parameters } } : {}) };
}
