import { DEFAULT_OVERHEADS } from "~/core/exposure";
import { USUAL_MOON } from "~/core/night";
import { randomFrom } from "~/core/numeric";
import {
  playSeasons,
  seasonTables,
  solvedSeason,
  solveSeason,
  type SeasonAnswer,
  type SeasonRequest,
  type SeasonTask,
} from "~/core/season";
import { nightDate } from "~/core/time";
import { places } from "../scripts/demo/group";

/** Times and gaps of the season's plan, on made-up projects over a real place: the sizes of the plan's own figures. */
const CHANNELS = ["Ha", "OIII", "SII", "L"] as const;

/** `scale` of the goals. */
function request(
  nights: number,
  projects: number,
  rigs: number,
  channels: number,
  seed: number,
  scale = 1,
): SeasonRequest {
  const random = randomFrom(seed);
  return {
    from: nightDate("2026-10-01"),
    nights,
    places: [{ id: "garden", place: places["place-garden"]! }],
    rigs: Array.from({ length: rigs }, (_, i) => ({ id: `r${i}`, overheads: DEFAULT_OVERHEADS })),
    projects: Array.from({ length: projects * rigs }, (_, i) => ({
      id: `p${i}`,
      priority: [0.7, 1, 1.5][Math.floor(random() * 3)]!,
      counts: "light" as const,
      target: { frame: "icrs", raDeg: 300 + 180 * random(), decDeg: -5 + 70 * random() } as const,
      placeId: "garden",
      rigId: `r${i % rigs}`,
      moon: USUAL_MOON,
      wants: CHANNELS.slice(0, channels).map((channel) => {
        const goalMin = scale * (200 + 500 * random());
        return { channel, goalMin, remainingMin: goalMin, subSec: channel === "L" ? 120 : 300 };
      }),
    })),
    chanceOf: () => 0.42,
    isFree: () => true,
    targetsANight: 2,
    minBlockMin: 40,
  };
}

/**
 * Project after project, as one would by hand: every night to the most urgent project that is not done, in the channel that is worth
 * most, from the first to the last usable slot in a row; in expectation, like the plan.
 */
function byHand(task: SeasonTask): number {
  const left = task.jobs.map((j) => j.reward.widths.reduce((a, b) => a + b, 0));
  const order = [...new Set(task.jobs.map((j) => j.project))].sort((a, b) => topOf(task, b) - topOf(task, a));
  let value = 0;
  for (const lane of task.lanes) {
    const best = { job: -1, worth: 0 };
    for (const project of order) {
      task.jobs.forEach((job, k) => {
        if (job.project !== project || left[k]! <= 0.5) return;
        let run = 0;
        for (const slot of lane.worth) {
          run = slot[k]! > 0 ? run + slot[k]! : 0;
          if (run > best.worth) Object.assign(best, { job: k, worth: run });
        }
      });
      if (best.job >= 0) break;
    }
    if (best.job < 0) continue;
    const given = Math.min(left[best.job]!, lane.chance * best.worth);
    left[best.job]! -= given;
    value += given * task.jobs[best.job]!.reward.slopes[0]!;
  }
  return value;
}
const topOf = (task: SeasonTask, project: number): number =>
  Math.max(...task.jobs.filter((j) => j.project === project).map((j) => j.reward.slopes[0] ?? 0));

const took = <T>(work: () => T): { readonly ms: number; readonly value: T } => {
  const from = performance.now();
  const value = work();
  return { ms: performance.now() - from, value };
};
const percent = (x: number) => `${(100 * x).toFixed(2)} %`;

for (const [nights, projects, rigs, channels] of [
  [30, 3, 1, 3],
  [90, 6, 2, 4],
  [180, 12, 4, 5],
  [180, 24, 1, 4],
] as const)
  // prettier-ignore
  for (const seed of [3, 7]) {
    const sized = (scale: number) => request(nights, projects / rigs > 1 ? Math.ceil(projects / rigs) : projects, rigs, Math.min(4, channels), seed, scale); // prettier-ignore
    // Goals for 1.3 times what the season holds, so that nights are worth something.
    const bare = seasonTables(sized(1)).task;
    const holds = bare.lanes.reduce((sum, l) => sum + l.chance * l.worth.reduce((s, slot) => s + Math.max(0, ...slot), 0), 0);
    const wants = bare.jobs.reduce((sum, j) => sum + j.reward.widths[0]!, 0);
    const asked = sized((1.3 * holds) / wants);
    const soon = took(() => seasonTables({ ...asked, nights: 3 }));
    const next = took(() => solvedSeason(soon.value.task));
    const tables = took(() => seasonTables(asked));
    const { task, lanes } = tables.value;
    const from = performance.now();
    const steps: { ms: number; answer: SeasonAnswer }[] = [];
    const work = solveSeason(task);
    let step = work.next();
    for (; !step.done; step = work.next()) steps.push({ ms: performance.now() - from, answer: step.value });
    const last = step.value;
    const total = performance.now() - from;
    const until = (gap: number) => steps.find((s) => s.answer.gap <= gap)?.ms.toFixed(0) ?? `> ${total.toFixed(0)}`;
    const later = { ...task, lanes: task.lanes.slice(3 * rigs) };
    const warm = took(() => {
      const again = solveSeason(later, { wantedGap: 0.01, mostRounds: 24, warm: { prices: last.prices, plan: last.plan.slice(3 * rigs) } }); // prettier-ignore
      for (let s = again.next(); ; s = again.next()) if (s.done) return s.value;
    });
    const first = nightDate("2026-10-01");
    const weather = {
      nightOf: lanes.map((l) => Math.round((Date.parse(l.night) - Date.parse(first)) / 86_400_000)),
      placeOf: lanes.map((l) => l.placeId),
      persistence: 0.35,
    };
    const played = took(() => playSeasons(task, last, weather, { runs: 300, seed: 1 }));
    console.log(
      `${nights} nights, ${asked.projects.length} projects, ${rigs} rigs, ${task.jobs.length} jobs, seed ${seed}: the next three evenings alone ${(soon.ms + next.ms).toFixed(0)} ms; tables ${tables.ms.toFixed(0)} ms; first plan ${steps[0]!.ms.toFixed(0)} ms (${percent(steps[0]!.answer.value / last.value)} of the best); 1 % after ${until(0.01)} ms, 0.3 % after ${until(0.003)} ms; end ${total.toFixed(0)} ms, gap ${percent(last.gap)}, ${last.rounds} rounds; re-plan 3 nights on ${warm.ms.toFixed(0)} ms, gap ${percent(warm.value.gap)}; 300 seasons ${played.ms.toFixed(0)} ms, ${percent(played.value.value / last.bound)} of the bound; the plan is worth ${(last.value / byHand(task)).toFixed(2)} times the nights handed out project after project`,
    );
  }
