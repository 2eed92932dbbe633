import { opticsOf } from "~/core/framing";
import type { Rig, SubLimits } from "~/core/exposure";
import { cullHints, withKept, type CullHint, type CullReason, type CullSub } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import type { MeasuredFile } from "~/workers/files";
import type { Desk } from "~/desk/desk";
import { keep, type Kept } from "~/desk/records/acts";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";

/** A sub of the log with what a page needs to change it. */
export type LoggedSub = CullSub & { readonly rev: string };

/** One's own single subs of a night, in order of time; entries that stand for several are left to the log. */
export function subsOfNight(library: Library, night: string, projectId: string | null): LoggedSub[] {
  const me = meOf(library);
  return (library.log.byNight.get(night) ?? [])
    .filter(
      ({ data }) =>
        data.taken === 1 &&
        data.startMs !== null &&
        data.memberId === me &&
        (projectId === null || data.projectId === projectId),
    )
    .map(({ id, rev, data }) => ({ id, rev, data }))
    .sort((a, b) => a.data.startMs! - b.data.startMs! || (a.id < b.id ? -1 : 1));
}

/** A night's subs as a page looks through them. */
export interface NightSubs {
  readonly subs: readonly LoggedSub[];
  readonly hints: readonly CullHint[];
  /** The rigs of these subs, with the limits of their owner. */
  readonly rigs: readonly { readonly id: string; readonly name: string; readonly limits: SubLimits }[];
  /** Arcseconds a pixel of each rig, as its pictures are binned. */
  readonly scales: Readonly<Record<string, number>>;
  /** Subs of the night in entries that stand for several: they cannot be told apart. */
  readonly lumped: number;
}

/** What is to be looked through of a night. */
export function nightSubs(library: Library, night: string, projectId: string | null): NightSubs {
  const subs = subsOfNight(library, night, projectId);
  const me = meOf(library);
  const lumps = (library.log.byNight.get(night) ?? []).filter(
    ({ data }) => data.memberId === me && data.taken > 1 && (projectId === null || data.projectId === projectId),
  );
  return {
    subs,
    hints: cullHints(subs, (rigId) => library.rigs.find((r) => r.id === rigId)?.data.limits),
    rigs: library.rigs
      .filter((r) => subs.some((s) => s.data.rigId === r.id))
      .map(({ id, data }) => ({ id, name: data.name, limits: data.limits ?? {} })),
    scales: Object.fromEntries(library.rigs.map((r) => [r.id, opticsOf(r.data).pixelScaleArcsecPerPx])),
    lumped: lumps.reduce((sum, { data }) => sum + data.taken, 0),
  };
}

/** Keeps or drops some of a night's subs, with one reason for all: one act, and one look in their history. */
export const cull = (
  desk: Desk,
  night: readonly LoggedSub[],
  entries: readonly LoggedSub[],
  isKept: boolean,
  reason: CullReason,
): Promise<Result<Kept, KeepFault>> => {
  // Later than every look before, also by a clock that stands still or was put back.
  const at = night.reduce((ms, s) => Math.max(ms, (s.data.history?.at(-1)?.untilMs ?? 0) + 1), desk.now() as number);
  return keep(
    desk,
    entries.flatMap(({ id, rev, data }) => {
      const next = withKept(data, isKept ? data.taken : 0, reason, at);
      return next === data ? [] : [{ kind: "contribution" as const, id, data: next, baseRev: rev }];
    }),
  );
};

/** Keeps the limits of a rig's owner for its subs. */
export const keepLimits = (
  desk: Desk,
  { id, rev, data }: Entity<Rig>,
  limits: SubLimits,
): Promise<Result<Kept, KeepFault>> => keep(desk, [{ kind: "rig", id, data: { ...data, limits }, baseRev: rev }]);

/** What measuring some files came to. */
export interface MeasureReport {
  readonly measured: number;
  /** Measured, but of no sub of the log. */
  readonly unknown: readonly string[];
  readonly refused: readonly {
    readonly name: string;
    readonly code: Exclude<MeasuredFile["result"], { readonly ok: true }>["error"]["code"];
  }[];
}

/** Writes what was measured on files to the subs they are: one act. */
export async function keepMeasures(
  library: Library,
  files: readonly MeasuredFile[],
): Promise<Result<{ readonly report: MeasureReport; readonly kept: Kept | null }, KeepFault>> {
  const byId = new Map(library.contributions.map((c) => [c.id, c]));
  const unknown: string[] = [];
  const refused: { name: string; code: MeasureReport["refused"][number]["code"] }[] = [];
  const edits = files.flatMap(({ name, identity, result }) => {
    if (!result.ok) {
      refused.push({ name, code: result.error.code });
      return [];
    }
    const entry = [identity?.own, identity?.before]
      .map((id) => byId.get(`contribution-file-${id ?? ""}`))
      .find(Boolean);
    if (!entry || entry.data.memberId !== meOf(library)) {
      unknown.push(name);
      return [];
    }
    return [
      {
        kind: "contribution" as const,
        id: entry.id,
        data: { ...entry.data, measure: result.value },
        baseRev: entry.rev,
      },
    ];
  });
  const report: MeasureReport = { measured: edits.length, unknown, refused };
  if (edits.length === 0) return { ok: true, value: { report, kept: null } };
  const done = await keep(library.desk, edits);
  return done.ok ? { ok: true, value: { report, kept: done.value } } : done;
}
