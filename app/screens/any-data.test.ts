import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { RecordKind, StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import { decodeData } from "~/core/records";
import demo from "~/data/demo.json";
import { plannerHere, type DeskOfTest } from "~/desk/desk.test-data";
import { demoDesk } from "~/desk/demo-library.test-data";

/**
 * No value that can be kept takes a screen down. Records of the demo get values at the ends of what their schemas allow; what
 * the schemas refuse is passed over, and every screen is then loaded.
 */
let desk: DeskOfTest;
const nothing = () => Promise.resolve([] as never);
const season = plannerHere();
/** A desk whose store is filled with these records. */
const deskWith = (records: readonly StoredRecord[]) =>
  demoDesk({
    season,
    sky: { year: nothing, ribbon: nothing, coverage: nothing, sharing: nothing },
    sources: { all: [], ask: () => Promise.resolve({ ok: false, error: { code: "unreachable", found: "" } }) },
    supplies: { sample: () => Promise.resolve(records) },
  });

const bundle = decodeBundle(JSON.stringify(demo));
if (!bundle.ok) throw new Error(bundle.error.code);
// Past forecasts are many and alike: a few will do.
const forecasts = bundle.value.records.filter((r) => r.kind === "forecast").slice(0, 6);
const records = [...bundle.value.records.filter((r) => r.kind !== "forecast"), ...forecasts];

type Path = readonly (string | number)[];
/** Paths of all values within data: numbers, texts, lists. */
function pathsOf(value: unknown, at: Path = []): Path[] {
  if (typeof value !== "object" || value === null) return [at];
  const inner = Object.entries(value).flatMap(([k, v]) => pathsOf(v, [...at, Array.isArray(value) ? Number(k) : k]));
  return Array.isArray(value) ? [at, ...inner.slice(0, 30)] : inner;
}
function withValue(data: unknown, path: Path, value: unknown): unknown {
  const [first, ...rest] = path;
  if (first === undefined) return value;
  if (Array.isArray(data)) return data.map((d, i) => (i === first ? withValue(d, rest, value) : (d as unknown)));
  return { ...(data as object), [first]: withValue((data as Record<string, unknown>)[first], rest, value) };
}

const ODD = [
  0, -0, 1, -1, 0.5, -0.5, 1e-9, 1e-300, 1e308, -1e308, 5e-324, 12, 90, -90, 89.999999, 180, -180, 359.999999, 2, 8, 10, 40, 100, 3600, 20_000, 36_000, 100_000,
  22.2, 14, 0.05, 0.3, 1440, Date.UTC(1900, 0, 1), Date.UTC(2200, 11, 31), null, "", "x", "__proto__", "constructor", "n".repeat(120), "1900-01-01", "2200-12-31", "2026-12-05",
  "Antarctica/Troll", "Pacific/Kiritimati", "Etc/GMT+12", "Ha", "Dual", "Colour", "panelAfterPanel", true, false, [], [0], {},
] as const; // prettier-ignore

const change = fc.record({ record: fc.nat(), path: fc.nat(), value: fc.constantFrom<unknown>(...ODD) });

function oddLibrary(changes: readonly { readonly record: number; readonly path: number; readonly value: unknown }[]) {
  const all = [...records];
  // Few kinds govern most of what is worked out; those come more often.
  const governing = all.flatMap((r, i) => (["contribution", "forecast", "look"].includes(r.kind) ? [] : [i]));
  let made = 0;
  for (const { record, path, value } of changes) {
    const i = made % 3 === 2 ? record % all.length : governing[record % governing.length]!;
    const r = all[i]!;
    const paths = pathsOf(r.data);
    const data = withValue(r.data, paths[path % paths.length]!, value);
    if (!decodeData(r.kind, data).ok) continue;
    all[i] = { ...r, data };
    made++;
  }
  return { desk: deskWith(all), made };
}

const request = (path: string) => new Request(`http://localhost${path}`);
const args = (path: string, params: Record<string, string> = {}) =>
  ({ request: request(path), params, context: { get: () => desk } }) as never;

/** Loads a screen, and what it promises for later; answers that a loader gives on purpose are none of a fault. */
async function loads(load: () => unknown): Promise<void> {
  try {
    const loaded = await load();
    if (typeof loaded === "object" && loaded !== null) await Promise.all(Object.values(loaded));
  } catch (thrown) {
    if (thrown instanceof Error) throw thrown; // data(…, { status }) is what a loader says itself
  }
}

const SCREENS: Readonly<Record<string, (id: string) => Promise<unknown>>> = {
  shell: async () => (await import("./shell/route")).clientLoader(args("/")),
  tonight: async () => (await import("./tonight/load")).loadTonight(desk, request("/")),
  projects: async () => (await import("./projects/route")).clientLoader(args("/")),
  project: async (projectId) => (await import("./project/route")).clientLoader(args("/", { projectId })),
  budget: async (projectId) => (await import("./budget/load")).loadBudget(desk, request("/"), projectId),
  frame: async (projectId) => (await import("./frame/load")).loadFrame(desk, request("/"), projectId),
  plan: async (projectId) => (await import("./plan/route")).clientLoader(args("/", { projectId })),
  log: async (projectId) => (await import("./log/load")).loadLog(desk, request("/"), projectId),
  allLog: async () => (await import("./log/load")).loadLog(desk, request("/"), null),
  crew: async (projectId) => (await import("./crew/route")).clientLoader(args("/", { projectId })),
  record: async (projectId) => (await import("./record/route")).clientLoader(args("/", { projectId })),
  nightFacts: async () => (await import("./night-facts/load")).loadFacts(desk, request("/log/nights")),
  nights: async () => (await import("./nights/load")).loadNight(desk, request("/nights")),
  live: async () => (await import("./live/load")).loadLive(desk, request("/nights/live")),
  places: async () => (await import("./kit/places/route")).clientLoader(args("/")),
  rigs: async () => (await import("./kit/rigs/route")).clientLoader(args("/")),
  filters: async () => (await import("./kit/filters/route")).clientLoader(args("/")),
  data: async () => (await import("./kit/data/route")).clientLoader(args("/")),
};

describe("any data that can be kept", () => {
  it("lets every screen load (law)", async () => {
    let kept = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(change, { minLength: 20, maxLength: 60 }), async (changes) => {
        const odd = oddLibrary(changes);
        desk = odd.desk;
        kept += odd.made;
        for (const { id } of (await desk.library()).projects.slice(0, 3))
          for (const [name, load] of Object.entries(SCREENS))
            await loads(() => load(id)).catch((error: unknown) => {
              throw new Error(`${name}: ${error instanceof Error ? error.stack : String(error)}`);
            });
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 400 : 12 },
    );
    expect(kept).toBeGreaterThan(50);
  }, 600_000);

  it("is not needed: with nothing at all, and with every kind missing in turn, every screen loads", async () => {
    const kinds = [...new Set<RecordKind | null>([null, ...records.map((r) => r.kind)])];
    for (const missing of kinds) {
      desk = deskWith(missing === null ? [] : records.filter((r) => r.kind !== missing));
      for (const load of Object.values(SCREENS)) await loads(() => load("project-loop"));
    }
    expect(kinds.length).toBeGreaterThan(8);
  }, 300_000);
});
