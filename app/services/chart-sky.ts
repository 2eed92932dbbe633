import type { SkyData } from "~/core/catalog";
import { starZones, unpackStars } from "~/core/catalog";
import { unitVector, type Vec3 } from "~/core/sky";
import bordersUrl from "~/data/borders.json?url";
import figuresUrl from "~/data/figures.json?url";
import namedUrl from "~/data/named-stars.json?url";
import starsUrl from "~/data/stars.bin?url";

const BORDER_STEP_DEG = 2;

/** A run of corners as directions at most 2° apart: borders follow parallels, which are no straight lines on a chart. */
function along(run: readonly (readonly [number, number])[]): Vec3[] {
  return run.flatMap(([ra, dec], i) => {
    const [toRa, toDec] = run[i + 1] ?? [ra, dec];
    const steps = Math.max(1, Math.ceil(Math.max(Math.abs(toRa - ra), Math.abs(toDec - dec)) / BORDER_STEP_DEG));
    return Array.from({ length: steps }, (_, k) =>
      unitVector({ raDeg: ra + ((toRa - ra) * k) / steps, decDeg: dec + ((toDec - dec) * k) / steps }),
    );
  });
}

/** Stars and figures for charts. */
export async function chartSky(): Promise<SkyData> {
  const [stars, named, figures, borders] = await Promise.all([
    fetch(starsUrl).then((r) => r.arrayBuffer()),
    fetch(namedUrl).then((r) => r.json() as Promise<unknown>),
    fetch(figuresUrl).then((r) => r.json() as Promise<unknown>),
    fetch(bordersUrl).then((r) => r.json() as Promise<unknown>),
  ]);
  const table = unpackStars(new Uint8Array(stars));
  if (!table.ok) throw new Error(`star file: ${table.error.reason}`);
  const names = named as SkyData["named"];
  return {
    stars: starZones(table.value),
    named: names,
    nameOf: new Map(names.map(([, , , name, hip]) => [hip, name])),
    figures: figures as SkyData["figures"],
    borders: (borders as readonly (readonly (readonly [number, number])[])[]).map(along),
  };
}
