import { expose } from "comlink";
import { Zip, ZipPassThrough } from "fflate";
import { starZones, unpackStars, type CatalogEntry, type StarZones } from "~/core/catalog";
import {
  calibrationFiles,
  fileOfSub,
  hindsight,
  overSeeds,
  playNight,
  preparedNight,
  standInKit,
  weatherOf,
  type Judged,
  type Prepared,
  type RehearsalNight,
  type WayKey,
} from "~/core/rehearsal";
import { standInObservatory, type FrameFile } from "~/core/observatory";
import starsUrl from "~/data/stars.bin?url";

let stars: StarZones | null = null;
async function starsHere(): Promise<StarZones> {
  if (stars) return stars;
  const table = unpackStars(new Uint8Array(await (await fetch(starsUrl)).arrayBuffer()));
  if (!table.ok) throw new Error(`star file: ${table.error.reason}`);
  return (stars = starZones(table.value));
}

/** A night and how it was played. */
export interface PlayedAs {
  readonly night: RehearsalNight;
  readonly seed: number;
  readonly ways: readonly WayKey[];
}

/** Lets a message to stop come in. */
const breath = () => new Promise((resolve) => setTimeout(resolve));

/** The frames of a played night, one after the other, as the stand-in hands them out when it is told what was done. */
async function* framesOf(
  { night, seed, ways }: PlayedAs,
  cropPx: number | null,
): AsyncGenerator<FrameFile & { of: number; all: number }> {
  const zones = await starsHere();
  const played = playNight(night, seed, { ways, then: "advice" });
  const weather = weatherOf(night, seed);
  let done = 0;
  for (const [index, rig] of night.rigs.entries()) {
    const fromMs = rig.sheet.lines[0]?.startMs;
    if (fromMs === undefined) continue;
    const subs = played.subs.filter((s) => s.rig === index);
    let taken = 0;
    const observatory = standInObservatory(standInKit(rig, weather, seed), fromMs, (exposure) => {
      const sub = subs[taken++];
      return sub ? fileOfSub(night, seed, { rig: index, of: sub.of, exposure }, cropPx, zones) : null;
    });
    for (const command of played.commands[index]!) {
      const file = await observatory.send(command);
      if (!file) continue;
      yield { ...file, of: ++done, all: played.subs.length };
      await breath();
    }
  }
}

const api = {
  prepared: (which: Prepared, target: CatalogEntry) => preparedNight(which, target),
  play: (at: PlayedAs) => playNight(at.night, at.seed, { ways: at.ways, then: "ask" }),
  /** Judges a night decision by decision; each is told as it is found. */
  async judge(at: PlayedAs, onJudged: (judged: Judged) => void): Promise<void> {
    const played = playNight(at.night, at.seed, { ways: at.ways, then: "advice" });
    for (const judged of hindsight(at.night, at.seed, played)) {
      onJudged(judged);
      await breath();
    }
  },
  seeds: (night: RehearsalNight, seeds: readonly number[]) => overSeeds(night, seeds),
  /** Writes the frames into a folder of this origin's own file system, one by one. How many. */
  async write(
    at: PlayedAs,
    folder: string,
    cropPx: number | null,
    onFile: (done: number, of: number) => void,
  ): Promise<number> {
    const root = await navigator.storage.getDirectory();
    const into = await root.getDirectoryHandle(folder, { create: true });
    let count = 0;
    for await (const file of framesOf(at, cropPx)) {
      const out = await (await into.getFileHandle(file.name, { create: true })).createWritable();
      await out.write(file.bytes);
      await out.close();
      count++;
      onFile(file.of, file.all);
    }
    return count;
  },
  /** The frames as one zip, not compressed: noise does not shrink. */
  async zip(
    at: PlayedAs,
    cropPx: number | null,
    isCalibrated: boolean,
    onFile: (done: number, of: number) => void,
  ): Promise<Blob> {
    const parts: Uint8Array<ArrayBuffer>[] = [];
    const zip = new Zip((error, chunk) => {
      if (error) throw error;
      parts.push(chunk as Uint8Array<ArrayBuffer>);
    });
    for await (const file of framesOf(at, cropPx)) {
      const entry = new ZipPassThrough(file.name);
      zip.add(entry);
      entry.push(file.bytes, true);
      onFile(file.of, file.all);
    }
    if (isCalibrated) {
      const { subs } = playNight(at.night, at.seed, { ways: at.ways, then: "advice" });
      for (const file of calibrationFiles(at.night, at.seed, subs, cropPx, await starsHere())) {
        const entry = new ZipPassThrough(file.name);
        zip.add(entry);
        entry.push(file.bytes, true);
        await breath();
      }
    }
    zip.end();
    return new Blob(parts, { type: "application/zip" });
  },
};

export type RehearsalApi = typeof api;
expose(api);
