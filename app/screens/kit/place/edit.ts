import type { Lamp, Landmark, LightDome, Skyline } from "~/core/sky";
import { clamp, wrap360 } from "~/core/units";

/** All that stands or shines around a place. */
export interface Surroundings {
  readonly skyline: Skyline;
  readonly landmarks: readonly Landmark[];
  readonly domes: readonly LightDome[];
  readonly lamps: readonly Lamp[];
}

/** What the next press on the panorama puts down. */
export type Tool = "line" | Landmark["shape"] | "dome" | "lamp";

/** One thing on the panorama. */
export interface Pick {
  readonly list: keyof Surroundings;
  readonly index: number;
}

/** Something put down or changed, and what is then picked. */
export interface Edited {
  readonly next: Surroundings;
  readonly pick: Pick | null;
}

const GAP_DEG = 0.1; // between points of the line, so that they never cross
const round = (deg: number): number => Math.round(deg * 10) / 10;
const azimuthOf = (deg: number): number => round(wrap360(deg)) % 360;
const altitudeOf = (deg: number): number => round(clamp(deg, 0, 90));
const NAMES: Readonly<Record<Exclude<Tool, "line">, string>> = {
  box: "shed",
  pole: "pole",
  tree: "tree",
  dome: "town",
  lamp: "lamp",
};

/** Puts something down at a direction. A point too near to another is moved aside by a tenth of a degree. */
export function putDown(now: Surroundings, tool: Tool, at: { azimuthDeg: number; altitudeDeg: number }): Edited {
  const [azimuthDeg, altitudeDeg] = [azimuthOf(at.azimuthDeg), altitudeOf(at.altitudeDeg)];
  const added = <K extends "landmarks" | "domes" | "lamps">(list: K, thing: Surroundings[K][number]): Edited => ({
    next: { ...now, [list]: [...now[list], thing] },
    pick: { list, index: now[list].length },
  });
  switch (tool) {
    case "line": {
      let free = azimuthDeg;
      while (now.skyline.some((p) => Math.abs(p.azimuthDeg - free) < GAP_DEG / 2)) free = azimuthOf(free + GAP_DEG);
      const skyline = [...now.skyline, { azimuthDeg: free, altitudeDeg }].sort((a, b) => a.azimuthDeg - b.azimuthDeg);
      return {
        next: { ...now, skyline },
        pick: { list: "skyline", index: skyline.findIndex((p) => p.azimuthDeg === free) },
      };
    }
    case "dome":
      return added("domes", { name: NAMES.dome, azimuthDeg, magPerArcsec2: 19, widthDeg: 30 });
    case "lamp":
      return added("lamps", { name: NAMES.lamp, azimuthDeg, altitudeDeg, radiusDeg: 8 });
    default:
      return added("landmarks", {
        name: NAMES[tool],
        shape: tool,
        azimuthDeg,
        widthDeg: tool === "pole" ? 1 : 15,
        altitudeDeg: Math.max(1, altitudeDeg),
      });
  }
}

/** Moves what is picked to a direction; a point of the line stays between its neighbours, a dome keeps its altitude. */
export function moveTo(now: Surroundings, pick: Pick, to: { azimuthDeg: number; altitudeDeg: number }): Surroundings {
  const altitudeDeg = altitudeOf(to.altitudeDeg);
  switch (pick.list) {
    case "skyline": {
      const { skyline } = now;
      const own = skyline[pick.index]!.azimuthDeg;
      const low = pick.index === 0 ? 0 : skyline[pick.index - 1]!.azimuthDeg + GAP_DEG;
      const high = pick.index === skyline.length - 1 ? 359.9 : skyline[pick.index + 1]!.azimuthDeg - GAP_DEG;
      // Over north the nearer way round is meant.
      const wanted = own + (((to.azimuthDeg - own + 540) % 360) - 180);
      const point = { azimuthDeg: round(clamp(wanted, low, Math.max(low, high))), altitudeDeg };
      return { ...now, skyline: skyline.map((p, i) => (i === pick.index ? point : p)) };
    }
    case "landmarks":
      return change(now, pick, { azimuthDeg: azimuthOf(to.azimuthDeg), altitudeDeg: Math.max(0.5, altitudeDeg) });
    case "domes":
      return change(now, pick, { azimuthDeg: azimuthOf(to.azimuthDeg) });
    case "lamps":
      return change(now, pick, { azimuthDeg: azimuthOf(to.azimuthDeg), altitudeDeg });
  }
}

/** Changes fields of what is picked. */
export const change = (
  now: Surroundings,
  pick: Pick,
  fields: Readonly<Record<string, number | string>>,
): Surroundings => ({
  ...now,
  [pick.list]: now[pick.list].map((thing, i) => (i === pick.index ? { ...thing, ...fields } : thing)),
});

/** Takes away what is picked. A skyline keeps two points or none: one would wall in the whole sky. */
export function takeAway(now: Surroundings, pick: Pick): Edited {
  const rest = now[pick.list].filter((_, i) => i !== pick.index);
  const kept = pick.list === "skyline" && rest.length === 1 ? [] : rest;
  return {
    next: { ...now, [pick.list]: kept },
    pick: kept.length > 0 ? { list: pick.list, index: Math.max(0, pick.index - 1) } : null,
  };
}

/** Direction of what is picked; domes are shown at the altitude where they are measured. */
export function whereIs(now: Surroundings, pick: Pick): { azimuthDeg: number; altitudeDeg: number } {
  const thing = now[pick.list][pick.index]!;
  return { azimuthDeg: thing.azimuthDeg, altitudeDeg: "altitudeDeg" in thing ? thing.altitudeDeg : 30 };
}
