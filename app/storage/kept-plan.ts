import type { SeasonPlan } from "~/core/plan";
import { openDrawer, type Drawer } from "./driver";
import { databaseName } from "./session";

/** A plan as it was left, and the question it answers, as text. */
export interface KeptPlan {
  readonly key: string;
  readonly plan: SeasonPlan;
}

/** Goes up when plans are built differently: what another version left is not read. */
const LAYOUT = 1;

let opened: Promise<Drawer> | null = null;
const drawer = (): Promise<Drawer> => (opened ??= openDrawer(`${databaseName()}-plan`, "plan"));

/** The plan left last in this browser; null when there is none that can be read. It can always be made anew. */
export async function keptPlan(): Promise<KeptPlan | null> {
  const raw = (await (await drawer()).read("plan").catch(() => null)) as
    (KeptPlan & { readonly layout?: number }) | null;
  return raw?.layout === LAYOUT ? { key: raw.key, plan: raw.plan } : null;
}

/** Leaves a plan for the next time. That it cannot be written loses nothing. */
export async function leavePlan({ key, plan }: KeptPlan): Promise<void> {
  await (await drawer()).write(new Map([["plan", { layout: LAYOUT, key, plan }]]));
}
