import type { StoredRecord } from "~/core/crew";
import demoUrl from "~/data/demo.json?url";
import planUrl from "~/data/demo-plan.json?url";
import pairUrl from "~/data/sample-pair.json?url";
import southUrl from "~/data/sample-south.json?url";

/** Invented groups to look around in, by id. */
const SAMPLES = { gardens: demoUrl, south: southUrl, pair: pairUrl } as const;
export type SampleId = keyof typeof SAMPLES;

/** A sample's records. They ship with the app and read as they are (a test reads every one): nothing checks them here. */
export async function sampleRecords(id: SampleId): Promise<readonly StoredRecord[]> {
  const response = await fetch(SAMPLES[id]);
  if (!response.ok) throw new Error(`sample: ${response.status}`);
  return ((await response.json()) as { readonly records: readonly StoredRecord[] }).records;
}

/** The plan of the demo as it begins, so that a first visit need not wait for one (`scripts/demo/plan.ts`). */
export async function demoPlan(): Promise<unknown> {
  const response = await fetch(planUrl);
  return response.ok ? response.json() : null;
}
