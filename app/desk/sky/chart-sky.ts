import type { SkyData } from "~/core/catalog";
import { slot, type Desk } from "~/desk/desk";

const loading = slot<{ sky: Promise<SkyData> | null }>(() => ({ sky: null }));

/** Stars and figures for charts, fetched once; a fetch that failed is tried again. */
export function skyData(desk: Desk): Promise<SkyData> {
  const at = desk.at(loading);
  at.sky ??= desk.supplies.chart().catch((error: unknown) => {
    at.sky = null;
    throw error;
  });
  return at.sky;
}
