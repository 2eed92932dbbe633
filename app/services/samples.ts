import type { StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import demoUrl from "~/data/demo.json?url";
import pairUrl from "~/data/sample-pair.json?url";
import southUrl from "~/data/sample-south.json?url";

/** Invented groups to look around in, by id. */
const SAMPLES = { gardens: demoUrl, south: southUrl, pair: pairUrl } as const;
export type SampleId = keyof typeof SAMPLES;

/** A sample's records, as they ship with the app. */
export async function sampleRecords(id: SampleId): Promise<readonly StoredRecord[]> {
  const bundle = decodeBundle(await (await fetch(SAMPLES[id])).text());
  if (!bundle.ok) throw new Error(`the sample does not read: ${bundle.error.code}`);
  return bundle.value.records;
}
