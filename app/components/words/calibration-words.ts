import { temperature } from "~/components/measures";
import { shortNight } from "~/components/clock";
import { counted, fixed } from "~/components/numbers";
import type { CalibrationNeed, CameraSet } from "~/core/ledger";

/** What changed in an optical train. */
export const TRAIN_WORDS = {
  turned: "camera turned",
  filters: "filters moved",
  cleaned: "optics or sensor cleaned",
} as const;

/** Kinds of calibration. */
export const SET_WORDS = { dark: "darks", flat: "flats", darkFlat: "dark flats", bias: "bias" } as const;

/** "Sat 5 Dec 2026", of an instant. */
export const shelfDay = (ms: number): string => `${day(ms)} ${new Date(ms).getUTCFullYear()}`;

const day = (ms: number): string => shortNight(new Date(ms).toISOString().slice(0, 10));

const formatSeconds = (sec: number): string => `${sec >= 10 ? Math.round(sec) : Number(sec.toPrecision(2))} s`;

const SETTING_WORDS = {
  gain: (v: number) => `gain ${v}`,
  offset: (v: number) => `offset ${v}`,
  binning: (v: number) => `binned ${v} × ${v}`,
} as const;

/** How a camera is to be set: "gain 100, offset 30"; "" where nothing is known. A camera that is not binned goes without saying. */
const setWords = (set: CameraSet | null): string =>
  (["gain", "offset", "binning"] as const)
    .flatMap((what) => {
      const value = set?.[what] ?? null;
      return value === null || (what === "binning" && value === 1) ? [] : SETTING_WORDS[what](value);
    })
    .join(", ");

/** What is needed, and how the camera is to be set: "30 darks of 300 s, gain 100, offset 30, −10 °C", "25 flats through Ha 5 nm". */
export const needWords = (n: CalibrationNeed): string =>
  [kindWords(n), setWords(n.settings), n.sensorC === null ? "" : temperature(n.sensorC)]
    .filter((w) => w !== "")
    .join(", ");

function kindWords(n: CalibrationNeed): string {
  switch (n.kind) {
    case "dark":
      return `${counted(n.want, "dark")} of ${formatSeconds(n.exposureSec ?? 0)}`;
    case "flat":
      return `${counted(n.want, "flat")} through ${n.filterName ?? ""}${n.angleDeg === null ? "" : `, camera at ${fixed(n.angleDeg)}°`}`;
    case "darkFlat":
      return `${counted(n.want, "dark flat")} ${n.exposureSec === null ? "as long as the flats" : `of ${formatSeconds(n.exposureSec)}`}`;
    case "bias":
      return counted(n.want, "bias frame");
  }
}

/** How the shelf stands for it. */
export function shelfWords(n: CalibrationNeed): string {
  switch (n.state) {
    case "serves":
      return `${n.have} on the shelf${n.latestMs === null ? "" : `, latest ${day(n.latestMs)}`}`;
    case "few":
      return `only ${n.have} on the shelf`;
    case "old":
      return n.kind === "flat"
        ? `${n.spent} on the shelf are over two months old: dust will have moved`
        : `${n.spent} on the shelf are over a year old: compare hot pixels with a fresh one`;
    case "void":
      return `${n.spent} are void: ${n.since?.why === "angle" ? "the camera angle is another one" : n.since ? `${TRAIN_WORDS[n.since.why]}` : "they were taken at another camera angle"}${n.since ? ` since ${day(n.since.atMs)}` : ""}`;
    case "missing": {
      const other = setWords(n.otherwise?.settings ?? null);
      return `none on the shelf${n.otherwise ? `; ${n.otherwise.count} ${other === "" ? "at another setting" : `at ${other}`}` : ""}`;
    }
  }
}
