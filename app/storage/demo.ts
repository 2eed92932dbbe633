import type { StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import demoUrl from "~/data/demo.json?url";
import pairUrl from "~/data/sample-pair.json?url";
import southUrl from "~/data/sample-south.json?url";
import { databaseName } from "./session";

const key = () => `${databaseName()}.seeded`;

/** Whether the demo's data was ever put in; it survives clearing, so that cleared means cleared. */
export function wasSeeded(): boolean {
  try {
    return localStorage.getItem(key()) === "yes";
  } catch {
    return false;
  }
}

/** Remembers that the demo's data was put in. */
export function markSeeded(): void {
  try {
    localStorage.setItem(key(), "yes");
  } catch {
    // Without storage the demo is put in again with every page, which is what one wants there.
  }
}

/** Invented groups to look around in, by id. */
const SAMPLES = { gardens: demoUrl, south: southUrl, pair: pairUrl } as const;
export type SampleId = keyof typeof SAMPLES;

/** A sample's records, as they ship with the app; the demo's where none is named. */
export async function demoRecords(id: SampleId = "gardens"): Promise<readonly StoredRecord[]> {
  const bundle = decodeBundle(await (await fetch(SAMPLES[id])).text());
  if (!bundle.ok) throw new Error(`the demo's data does not read: ${bundle.error.code}`);
  return bundle.value.records;
}
