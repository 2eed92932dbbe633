import type { SkyData } from "~/components/sky-chart/layers";
import { starZones, unpackStars } from "~/core/catalog";
import figuresUrl from "~/data/figures.json?url";
import namedUrl from "~/data/named-stars.json?url";
import starsUrl from "~/data/stars.bin?url";

let loading: Promise<SkyData> | null = null;

async function load(): Promise<SkyData> {
  const [stars, named, figures] = await Promise.all([
    fetch(starsUrl).then((r) => r.arrayBuffer()),
    fetch(namedUrl).then((r) => r.json() as Promise<unknown>),
    fetch(figuresUrl).then((r) => r.json() as Promise<unknown>),
  ]);
  const table = unpackStars(new Uint8Array(stars));
  if (!table.ok) throw new Error(`star file: ${table.error.reason}`);
  return { stars: starZones(table.value), named: named as SkyData["named"], figures: figures as SkyData["figures"] };
}

/** Stars and figures for charts, fetched once. */
export function skyData(): Promise<SkyData> {
  loading ??= load().catch((error: unknown) => {
    loading = null;
    throw error;
  });
  return loading;
}
