import { bookingFaultWords, fileFaultWords, mismatchWords } from "~/components/words";
import type { IntakeReport } from "~/components/IntakeReport";
import { bookExposure, fileIdentity, type BookingContext } from "~/core/ledger";
import { nightOffer } from "~/core/plan";
import { nightDate } from "~/core/time";
import type { Library } from "~/storage/library";
import type { Edit } from "~/storage/records";
import type { ReadFile } from "~/workers/files";
import { targetNameOf } from "./own-targets";
import { contextOf, type ProjectContext } from "./project-context";

/** What booking needs to know of all projects. */
export function bookingContext(library: Library): {
  readonly context: BookingContext;
  readonly projects: ReadonlyMap<string, ProjectContext>;
} {
  const found = library.projects.flatMap((p) => contextOf(library, p.id) ?? []);
  return {
    projects: new Map(found.map((c) => [c.id, c])),
    context: {
      memberId: library.settings?.data.memberId ?? "me",
      projects: found.map((c) => ({
        id: c.id,
        project: c.project.data,
        frame: c.frame.data,
        goals: c.goal.data,
        rig: c.rig.data,
        place: c.place.data,
        filters: c.filters.map((f) => f.data),
        targetNames: [targetNameOf(library, c.project.data.targetId), c.project.data.name],
      })),
    },
  };
}

/** Mean worth of a usable minute of a project in one channel and night; asked often for the same night. */
function worthRates(projects: ReadonlyMap<string, ProjectContext>) {
  const known = new Map<string, number | null>();
  return (projectId: string, channel: Parameters<typeof nightOffer>[2][number], night: string): number | null => {
    const key = `${projectId}|${channel}|${night}`;
    if (!known.has(key)) {
      const c = projects.get(projectId);
      const offer = c
        ? nightOffer(c.place.data, c.layout.centre, [channel], nightDate(night)).channels[channel]
        : undefined;
      known.set(key, offer && offer.usableMin > 0 ? Number((offer.worthMin / offer.usableMin).toFixed(3)) : null);
    }
    return known.get(key) ?? null;
  };
}

/** Turns read files into edits and a report. A file known already, by its header, makes no edit. */
export function intake(
  library: Library,
  files: readonly ReadFile[],
): { readonly edits: readonly Edit[]; readonly report: IntakeReport } {
  const { context, projects } = bookingContext(library);
  const rateOf = worthRates(projects);
  const have = new Set([...library.contributions, ...library.calibrations].map((r) => r.id));
  const edits: Edit[] = [];
  const groups = new Map<string, { words: string; count: number; notes: Set<string> }>();
  const refused: { name: string; reason: string }[] = [];
  let known = 0;
  for (const file of files) {
    if (!file.facts.ok) {
      refused.push({ name: file.name, reason: fileFaultWords(file.facts.error.code) });
      continue;
    }
    const booking = bookExposure(file.facts.value, context);
    if (!booking.ok) {
      refused.push({ name: file.name, reason: bookingFaultWords(booking.error) });
      continue;
    }
    const id = `${booking.value.kind === "light" ? "contribution" : "calibration"}-file-${fileIdentity(file.facts.value)}`;
    if (have.has(id)) {
      known++;
      continue;
    }
    have.add(id);
    const b = booking.value;
    const words =
      b.kind === "light"
        ? `${b.projectName}: ${b.data.panel} ${b.data.channel}, night of ${b.data.night}, ${b.data.exposureSec} s`
        : `${b.data.type} frames of ${b.data.exposureSec} s`;
    const group = groups.get(words) ?? { words, count: 0, notes: new Set<string>() };
    group.count++;
    if (b.kind === "light") b.mismatches.forEach((m) => group.notes.add(mismatchWords(m)));
    groups.set(words, group);
    edits.push(
      b.kind === "light"
        ? {
            kind: "contribution",
            id,
            data: { ...b.data, worthRate: rateOf(b.data.projectId, b.data.channel, b.data.night) },
            baseRev: "latest",
          }
        : { kind: "calibration", id, data: b.data, baseRev: "latest" },
    );
  }
  return {
    edits,
    report: {
      booked: [...groups.values()].map((g) => ({ words: g.words, count: g.count, notes: [...g.notes] })),
      known,
      refused,
      total: files.length,
    },
  };
}
