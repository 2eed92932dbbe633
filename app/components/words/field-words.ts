import type { RecordKind } from "~/core/crew";
import { formatMinutes } from "~/core/notation";
import { counted, trimmed } from "~/components/numbers";
import type { PanelGoal } from "~/core/plan";
import type { FieldChange } from "~/core/records";

/** What kinds of record are called on a page. */
export const RECORD_WORDS: Readonly<Record<RecordKind, string>> = {
  place: "Place",
  rig: "Rig",
  filter: "Filter",
  project: "Project",
  part: "Part in a project",
  frame: "Frame",
  goal: "Budget",
  contribution: "Log entry",
  calibration: "Calibration files",
  night: "Night",
  member: "Member",
  settings: "Settings",
  forecast: "Forecast",
  look: "Look at the sky",
  target: "Target",
  lock: "Night kept by hand",
  wish: "Wish",
  intake: "Intake of files",
  handOver: "What is handed over",
  begun: "Night begun",
  event: "Press in a night",
};

/** Fields whose own schema gives them no name, or one too short to stand alone. */
const LABELS: Readonly<Record<string, string>> = {
  targetId: "Target",
  placeId: "Place",
  rigId: "Rig",
  frameId: "Frame",
  memberId: "Member",
  filterIds: "Filters",
  startedOn: "Started on",
  school: "Panels",
  moon: "When the Moon is up",
  rules: "How it is shot",
  onlyAt: "Shot at one place only",
  skyline: "Skyline",
  landmarks: "Things in the way",
  domes: "Light domes",
  lamps: "Lamps",
  clearChance: "Clear nights by month",
  timeZone: "Time zone",
  raDeg: "Right ascension of the centre",
  decDeg: "Declination of the centre",
  extra: "Panels put down by hand",
  skipped: "Panels left out",
  order: "Order of shooting",
  outlines: "Outlines",
  names: "Panel names",
  channels: "Channels",
  isColour: "Colour camera",
  isCooled: "Cooled camera",
  isGuided: "Guided",
  kept: "Kept",
  taken: "Taken",
  night: "Night",
  panel: "Panel",
  reason: "Why not kept",
};

const VALUES: Readonly<Record<string, string>> = {
  allPanelsEveryNight: "all panels every night, in turn",
  panelAfterPanel: "one panel after another",
  sinkingFirst: "the sinking panel first",
};

/** "Latitude", or as near as there is a name for it. */
export const fieldLabel = ({ path, label }: FieldChange): string => {
  const key = path.at(-1) ?? "";
  const own = LABELS[key] ?? (label === "" || label === "Identifier" ? key : label);
  return path.length > 1 ? `${LABELS[path[0]!] ?? path[0]!}: ${own}` : own;
};

const isGoals = (list: readonly unknown[]): list is readonly PanelGoal[] =>
  list.every((g) => typeof g === "object" && g !== null && "hoursPerPanel" in g && "subSec" in g);

/** One of the two values of a change, in words short enough to compare. */
export function valueWords(value: unknown, unit: string, names: Readonly<Record<string, string>>): string {
  if (value === undefined || value === null || value === "") return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") {
    const shown = trimmed(value);
    const bare = unit.split(",")[0]!; // "°, north positive"
    return bare === "" ? shown : bare.startsWith("°") ? `${shown}${bare}` : `${shown} ${bare}`;
  }
  if (typeof value === "string") return names[value] ?? VALUES[value] ?? value.slice(0, 80);
  if (Array.isArray(value)) {
    const list = value as readonly unknown[];
    if (list.length === 0) return "nothing";
    if (isGoals(list)) {
      const short = (g: PanelGoal) => `${g.channel} ${formatMinutes(g.hoursPerPanel * 60)} of ${g.subSec} s`;
      return list.map(short).join(", ");
    }
    if (list.every((x) => typeof x === "string")) return list.map((x) => names[x] ?? x).join(", ");
    return counted(list.length, "entry", "entries");
  }
  return JSON.stringify(value).slice(0, 80);
}

/** "Latitude: 43.62° → 45°". */
export function changeWords(change: FieldChange, names: Readonly<Record<string, string>>): string {
  const [from, to] = [change.from, change.to].map((v) => valueWords(v, change.unit, names));
  return `${fieldLabel(change)}: ${from === to ? `${from}, drawn otherwise` : `${from} → ${to}`}`;
}
