import type { Channel } from "~/core/exposure";
import { addNights, nightsBetween, type NightDate } from "~/core/time";
import type { SeasonPlace, SeasonQuestion } from "./question";
import type { SeasonProject } from "./request";

/** Something that could be different. */
export type WhatIf =
  /** Some nights at another place, with all rigs. */
  | { readonly kind: "trip"; readonly place: SeasonPlace; readonly from: NightDate; readonly nights: number }
  /** A night that is sure to be clear. */
  | { readonly kind: "clearNight"; readonly night: NightDate }
  | { readonly kind: "withoutChannel"; readonly projectId: string; readonly channel: Channel }
  | { readonly kind: "targetsANight"; readonly targets: number }
  | { readonly kind: "isOneRig"; readonly isOneRig: boolean }
  /** One project before all others. */
  | { readonly kind: "first"; readonly projectId: string }
  /** Nothing of a project for some weeks. */
  | { readonly kind: "wait"; readonly projectId: string; readonly weeks: number }
  /** Less of a project: this share of what is left. */
  | { readonly kind: "lessOf"; readonly projectId: string; readonly share: number }
  /** Another project is begun. */
  | {
      readonly kind: "start";
      readonly project: SeasonProject;
      readonly rig: SeasonQuestion["rigs"][number];
      readonly place: SeasonPlace;
    }
  /** Another rig like the one of each project, beside it. */
  | { readonly kind: "secondRig" }
  /** Targets from this altitude on. */
  | { readonly kind: "lowest"; readonly altitudeDeg: number };

const FIRST = 8; // of the usual: what else there is comes after it

/** The question with one thing changed. */
export function changedBy(question: SeasonQuestion, change: WhatIf): SeasonQuestion {
  const projects = (of: (p: SeasonQuestion["projects"][number]) => SeasonQuestion["projects"][number]) => ({
    ...question,
    projects: question.projects.map(of),
  });
  switch (change.kind) {
    case "trip": {
      const nights = Array.from({ length: change.nights }, (_, i) => addNights(change.from, i));
      return {
        ...question,
        places: question.places.some((p) => p.id === change.place.id)
          ? question.places
          : [...question.places, change.place],
        trips: [...question.trips, ...nights.map((night) => ({ night, placeId: change.place.id }))],
      };
    }
    case "clearNight": {
      const n = nightsBetween(question.from, change.night);
      return {
        ...question,
        places: question.places.map((p) => {
          const { [change.night]: _, ...hours } = p.hours;
          return { ...p, hours, chances: p.chances.map((c, i) => (i === n ? 1 : c)) };
        }),
      };
    }
    case "withoutChannel":
      return projects((p) =>
        p.id === change.projectId ? { ...p, wants: p.wants.filter((w) => w.channel !== change.channel) } : p,
      );
    case "targetsANight":
      return { ...question, rules: { ...question.rules, targetsANight: change.targets } };
    case "isOneRig":
      return { ...question, rules: { ...question.rules, isOneRig: change.isOneRig } };
    case "first":
      return projects((p) => (p.id === change.projectId ? { ...p, priority: p.priority * FIRST } : p));
    case "wait":
      return {
        ...question,
        locks: [
          ...question.locks,
          ...Array.from({ length: change.weeks * 7 }, (_, i) => ({
            id: `wait ${i}`,
            memberId: "",
            does: "forbid" as const,
            night: addNights(question.from, i),
            projectId: change.projectId,
          })),
        ],
      };
    case "lessOf":
      return projects((p) =>
        p.id === change.projectId
          ? { ...p, wants: p.wants.map((w) => ({ ...w, remainingMin: w.remainingMin * change.share })) }
          : p,
      );
    case "start":
      return {
        ...question,
        places: question.places.some((p) => p.id === change.place.id)
          ? question.places
          : [...question.places, change.place],
        rigs: question.rigs.some((r) => r.id === change.rig.id) ? question.rigs : [...question.rigs, change.rig],
        projects: [...question.projects, change.project],
      };
    case "secondRig": {
      const second = (id: string) => `${id} second`;
      const used = new Set(question.projects.map((p) => p.rigId));
      return {
        ...projects((p) => ({ ...p, alsoRigs: [second(p.rigId)] })),
        rigs: [
          ...question.rigs,
          ...question.rigs.filter((r) => used.has(r.id)).map((r) => ({ ...r, id: second(r.id) })),
        ],
      };
    }
    case "lowest":
      return {
        ...question,
        places: question.places.map((p) => ({ ...p, place: { ...p.place, minAltitudeDeg: change.altitudeDeg } })),
      };
  }
}
