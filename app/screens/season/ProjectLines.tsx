import { Link } from "react-router";
import { ruleWords } from "~/components/words/rule-words";
import { shareOf, type SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonRun } from "~/desk/plan/season";
import type { SeasonView } from "./load";
import { standingWords, waitWords } from "./season-words";

type SeasonProject = SeasonView["projects"][number];

/** What the letters on the leaf stand for; one of them lights up its slices. */
export function ProjectKey({
  projects,
  lit,
  onLight,
}: {
  readonly projects: readonly SeasonProject[];
  /** The project whose slices are lit; null = all. */
  readonly lit: string | null;
  readonly onLight: (id: string | null) => void;
}) {
  return (
    <ul className="mt-2 mb-3 flex flex-wrap gap-x-2 gap-y-1" aria-label="Projects on the leaf">
      {projects.map((p) => {
        const isLit = lit === p.id;
        return (
          <li key={p.id}>
            <button
              type="button"
              aria-pressed={isLit}
              title="Lights up its nights on the leaf"
              onClick={() => onLight(isLit ? null : p.id)}
              className={`prints text-note min-h-6 rounded-[4px] border px-1.5 ${isLit ? "border-lamp text-lamp" : "border-rule text-soft hover:text-ink"}`}
            >
              <b className="text-ink">{p.initial}</b> {p.name}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** How each project stands in the season: what is left, and when it is likely done. */
export function ProjectLines({
  plan,
  view,
  run,
  waited,
  search,
  last,
}: {
  readonly plan: SeasonPlan;
  readonly view: SeasonView;
  readonly run: SeasonRun;
  /** Odds by project if it waits four weeks. */
  readonly waited: ReadonlyMap<string, number>;
  readonly search: string;
  readonly last: NightDate;
}) {
  return (
    <ul className="mt-5 grid gap-x-8 sm:grid-cols-2">
      {view.projects.map((p) => (
        <li key={p.id} className="border-rule break-inside-avoid border-t py-2">
          <Link to={`/projects/${p.id}/plan${search}`} className="font-semibold hover:underline">
            {p.name}
          </Link>
          <p className="text-soft">
            {standingWords(shareOf(plan, p.id), last)}
            {ruleWords(run.question, p.id).map((w) => ` ${w}`)}
            {waitWords(plan.odds?.find((o) => o.projectId === p.id)?.doneShare, waited.get(p.id))}
          </p>
        </li>
      ))}
    </ul>
  );
}
