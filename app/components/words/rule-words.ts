import { shortNight } from "~/components/clock";
import { percent } from "~/components/numbers";
import { cycleText, runStandingOf, type RunStanding, type SeasonQuestion, hasLeft } from "~/core/season";

const IN_A_ROW = [
  "",
  "one clear night",
  "two clear nights in a row",
  "three clear nights in a row",
  "four clear nights in a row",
];

/** How a project that wants clear nights in a row stands tonight, in a sentence. */
export function runWords({ run, odds, best, waits }: RunStanding): string {
  const what = IN_A_ROW[run] ?? `${run} clear nights in a row`;
  if (!waits) return `It wants ${what}: tonight, if clear, is one of them with ${percent(odds)}.`;
  return `It waits for ${what}: tonight, if clear, would be one of them with only ${percent(odds)}; likeliest to begin ${shortNight(best.night)}, ${percent(best.odds)}.`;
}

/** What a project's own rules make of its season, sentence by sentence; empty where it is shot as usual. */
export function ruleWords(question: SeasonQuestion, projectId: string): string[] {
  const project = question.projects.find((p) => p.id === projectId);
  if (!project) return [];
  const open = project.wants.filter(hasLeft);
  const standing = runStandingOf(question, projectId);
  const isFirst = open.some((w) => w.channel === project.first) && open.some((w) => w.channel !== project.first);
  const bound = [...new Set(open.flatMap((w) => w.onlyAt ?? []))].map((id) => {
    const channels = [...new Set(open.flatMap((w) => (w.onlyAt === id ? w.channel : [])))].join(" and ");
    return `${channels} only at ${question.places.find((p) => p.id === id)?.place.name ?? "a place that is gone"}.`;
  });
  return [
    ...(standing ? [runWords(standing)] : []),
    ...(isFirst ? [`${project.first} comes first: the rest waits until it is done in all panels.`] : []),
    ...(project.cycle && open.length > 1 ? [`${cycleText(project.cycle)} in turn.`] : []),
    ...bound,
  ];
}
