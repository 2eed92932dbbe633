import { keyOfRaw, type StoredRecord } from "~/core/crew";
import { err, ok, type Result } from "~/core/result";
import { MAX_BUNDLE_BYTES, MOST_RECORDS, MOST_VERSIONS } from "./bundle-limits";
import { FORMAT, VERSION, type BundleScope } from "./encode-bundle";
import { readJson } from "./json-text";
import { decodeRecord, type RecordFault } from "~/core/records";

/** A file of records (docs/formats.md, docs/bundle.schema.json). */
export interface Bundle {
  readonly scope: BundleScope;
  readonly exportedAt: string;
  readonly records: readonly StoredRecord[];
  /** Records that do not decode: left out, named by kind and id, and the rest loads. */
  readonly refused: readonly { readonly key: string; readonly fault: RecordFault; readonly raw: unknown }[];
  /** In one's own backup, the plan that its owner saw last, as it is; absent in any other file. Nothing but where to begin from. */
  readonly plan?: unknown;
}

/** Why a file cannot be read as a bundle at all. */
export interface BundleFault {
  readonly code:
    | "bundleEmpty"
    | "bundleTooLarge"
    | "bundleTooMany"
    | "bundleTooManyVersions"
    | "bundleNotJson"
    | "bundleForeign"
    | "bundleNewer";
  readonly found: string;
}

/** What of a list of records is too many to be looked at; null when nothing is. */
function tooMany(raws: readonly unknown[]): BundleFault | null {
  if (raws.length > MOST_RECORDS) return { code: "bundleTooMany", found: String(raws.length) };
  const versions = new Map<string, number>();
  for (const raw of raws) {
    const key = keyOfRaw(raw);
    const count = (versions.get(key) ?? 0) + 1;
    if (count > MOST_VERSIONS && key !== keyOfRaw(null)) return { code: "bundleTooManyVersions", found: key };
    versions.set(key, count);
  }
  return null;
}

/** Reads a bundle; nothing in it is trusted. */
export function decodeBundle(text: string): Result<Bundle, BundleFault> {
  if (text.trim() === "") return err({ code: "bundleEmpty", found: "" });
  if (text.length > MAX_BUNDLE_BYTES)
    return err({ code: "bundleTooLarge", found: `${Math.round(text.length / 1e6)} MB` });
  const json = readJson(text);
  if (!json.ok)
    return err({
      code: json.error.code === "jsonTooDeep" ? "bundleForeign" : "bundleNotJson",
      found: json.error.found,
    });
  const outer = json.value as {
    format?: unknown;
    version?: unknown;
    scope?: unknown;
    exportedAt?: unknown;
    records?: unknown;
    unread?: unknown;
    plan?: unknown;
  } | null;
  if (typeof outer !== "object" || outer?.format !== FORMAT || !Array.isArray(outer.records))
    return err({ code: "bundleForeign", found: typeof outer?.format === "string" ? outer.format : "" });
  if (typeof outer.version !== "number" || outer.version > VERSION)
    return err({ code: "bundleNewer", found: String(outer.version) });
  const fault = tooMany(outer.records as unknown[]);
  if (fault) return err(fault);
  const records: StoredRecord[] = [];
  const refused: { key: string; fault: RecordFault; raw: unknown }[] = [];
  const unread = Array.isArray(outer.unread) ? (outer.unread as unknown[]) : [];
  for (const raw of [...(outer.records as unknown[]), ...unread]) {
    const decoded = decodeRecord(raw);
    if (decoded.ok) records.push(decoded.value);
    else refused.push({ key: keyOfRaw(raw), fault: decoded.error, raw });
  }
  return ok({
    scope: outer.scope === "project" ? "project" : "everything",
    exportedAt: typeof outer.exportedAt === "string" ? outer.exportedAt : "",
    records,
    refused,
    ...(outer.scope === "everything" && outer.plan !== undefined ? { plan: outer.plan } : {}),
  });
}
