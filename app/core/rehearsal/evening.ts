import { BORNE_TRAIL_PX } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import type { CullReason } from "~/core/ledger";
import type { Block, SheetEvent } from "~/core/night";
import { isOpen, type TakenExposure } from "~/core/observatory";
import { MINUTE_MS } from "~/core/time";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import type { RehearsalRig } from "./question";
import type { RigAtNight, Steps } from "./rig-at-night";
import { beforeSub, closedSky } from "./troubles";

const WET = 0.5; // half blind
const SOFT = 1.3; // focus that blurs so much more than all else together: stars 1.6 times as wide

/** Why a sub is of no use; null = it is. */
export function spoiltBy(e: TakenExposure, rig: RehearsalRig["rig"], hasPower: boolean): CullReason | null {
  const scale = opticsOf(rig).pixelScaleArcsecPerPx;
  if (e.hasStopped) return hasPower ? "trail" : "other";
  if (!e.isOpen) return "cloud";
  if (e.gustKmh > (rig.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH)) return "wind";
  if (e.hasLostStar) return "guiding";
  if (e.wet > WET) return "other";
  if (e.focusBlurArcsec > SOFT * Math.sqrt(e.fwhmArcsec ** 2 - e.focusBlurArcsec ** 2)) return "focus";
  if (Math.hypot(e.trailArcsec.x, e.trailArcsec.y) > BORNE_TRAIL_PX * scale) return rig.isGuided ? "guiding" : "trail";
  return null;
}

/** One rig's evening to its end: its sheet, line by line and sub by sub, on the stand-in. */
export function* rigEvening(r: RigAtNight): Steps {
  const { lines } = r;
  if (lines.length > 0) r.tell({ what: "begun" });
  for (let i = 0; i < lines.length && !r.isOver;) {
    yield* r.step();
    const line = lines[i]!;
    if (line.kind !== "packUp" && r.atMs >= r.endMs) {
      i++; // what is late by the whole sheet is not begun any more
      continue;
    }
    // What the sheet itself leaves free is for the sky's sake: nothing after it comes before its time.
    const gapMs = line.startMs - (lines[i - 1]?.endMs ?? line.startMs);
    if (gapMs > MINUTE_MS && line.startMs > r.atMs) r.do({ do: "wait", untilMs: line.startMs });
    if (line.kind === "block") i = yield* block(r, line, i);
    else {
      yield* sheetEvent(r, line);
      i++;
    }
  }
  r.leave();
}

function* sheetEvent(r: RigAtNight, line: SheetEvent): Steps {
  const sec = (line.endMs - line.startMs) / 1000;
  switch (line.kind) {
    case "wait":
      return void r.do({ do: "wait", untilMs: Math.max(r.atMs, line.endMs) });
    case "filter":
      return void r.do({ do: "filter", name: line.detail, sec });
    case "focus":
      return r.focus(sec, false);
    case "align": // focuses too, the first time: nobody writes that down
      r.do({ do: "focus", sec });
      r.focusTold = 1;
      return;
    case "flip":
      return yield* r.flip(sec);
    case "packUp":
      return r.packUp(sec);
    case "setUp":
    case "centre": // the block that follows says where to
      r.waitSec(sec);
  }
}

/** Sees to it that the rig points there, with that filter. */
function prepare(r: RigAtNight, block: Block, i: number): void {
  const { overheads } = r.of.rig;
  const { aim, pierSide, isParked } = r.s.mount;
  const { projectId, panel } = block;
  const before = r.lines[i - 1];
  const isOfSheet = before !== undefined && before.kind !== "block" && before.kind !== "wait";
  if (aim?.projectId !== projectId || aim.panel !== panel || isParked) {
    // To change sides by the sheet, unless it has.
    const flip = r.lines.findIndex((l) => l.kind === "flip" && (l.projectId ?? projectId) === projectId);
    const isEast = aim?.projectId !== projectId || pierSide === "east";
    const meridianMs = flip > i && isEast ? r.lines[flip]!.startMs : null;
    r.do({ do: "slew", aim: { projectId, panel, meridianMs }, sec: isOfSheet ? 0 : overheads.panelChangeSec });
  }
  if (r.s.wheel.filterName !== block.filterName)
    r.do({ do: "filter", name: block.filterName, sec: isOfSheet ? 0 : overheads.filterChangeSec });
}

/** A block, sub by sub, to its end or until cloud breaks it off; the line that comes next. */
function* block(r: RigAtNight, of: Block, i: number): Steps<number> {
  prepare(r, of, i);
  const cycle = (of.endMs - of.startMs) / of.subs / 1000;
  const tally = r.tallies.get(i) ?? { kept: 0, lost: 0, why: "" };
  r.tallies.set(i, tally);
  const close = () => {
    const { projectId, panel, channel, subSec, startMs } = of;
    const { kept, lost, why } = tally;
    if (kept + lost > 0)
      r.tell({ what: "done", of: { projectId, panel, channel, subSec, startMs }, kept, lost, reason: why });
  };
  const isInTime = () => r.atMs + of.subSec * 1000 <= r.endMs + MINUTE_MS;
  for (let sub = tally.kept + tally.lost; sub < of.subs && isInTime(); sub++) {
    yield* r.step();
    if (!isOpen(r.weather)) {
      close();
      return (yield* closedSky(r)) ? lineNow(r, i) : r.lines.length;
    }
    yield* beforeSub(r);
    if (r.isOver) break;
    const exposure = r.do({ do: "expose", sec: of.subSec, restSec: Math.max(0, cycle - of.subSec) })!;
    const hasPower = r.s.battery.emptyMs === null || r.s.battery.emptyMs > r.atMs;
    const lostTo = spoiltBy(exposure, r.of.rig, hasPower);
    r.shared.subs.push({ rig: r.index, of, exposure, lostTo });
    if (lostTo === null) tally.kept++;
    else {
      tally.lost++;
      tally.why ||= lostTo;
    }
    if (!hasPower) {
      close();
      r.leave();
      return r.lines.length;
    }
  }
  close();
  return i + 1;
}

/** The line that is on by the clock, from one on. */
function lineNow(r: RigAtNight, from: number): number {
  const i = r.lines.findIndex((l, k) => k >= from && l.endMs > r.atMs && l.kind !== "centre" && l.kind !== "filter");
  if (i < 0) return r.lines.length;
  // A flip that went by under cloud is done before anything else.
  if (r.lines.slice(from, i).some((l) => l.kind === "flip")) r.flipNow(r.of.rig.overheads.flipMin * 60);
  return i;
}
