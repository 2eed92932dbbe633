import { stretches, type NightSteps } from "~/core/night";
import { type TonightBlock, type TonightChoice } from "~/core/plan";
import { channelsText } from "~/core/season";
import { clockTime } from "~/components/clock";

/** Blocks of one project in a row, of one rig. */
interface Turn {
  readonly projectId: string;
  readonly blocks: readonly TonightBlock[];
}

/** Blocks as people speak of them: one target after the other, with its channels. */
export function turnsOf(blocks: readonly TonightBlock[]): Turn[] {
  const turns: { projectId: string; blocks: TonightBlock[] }[] = [];
  for (const block of blocks) {
    const last = turns.at(-1);
    if (last?.projectId === block.projectId) last.blocks.push(block);
    else turns.push({ projectId: block.projectId, blocks: [block] });
  }
  return turns;
}

/** What ends a target's night, in words; null where it could go on. */
function endWords({ walk, endMs }: TonightBlock, steps: NightSteps): string | null {
  const runs = stretches(steps, walk);
  const after = runs.find((r) => r.startMs >= endMs - 60_000 && r.cause !== "none");
  const goesOn = runs.some((r) => r.cause === "none" && r.endMs > endMs + 60_000 && r.startMs <= endMs);
  if (goesOn) return null;
  switch (after?.cause ?? "lightSky") {
    case "lightSky":
      return "dawn comes";
    case "skyline":
      return "the skyline takes it";
    case "moon":
      return "the Moon is too near";
    case "lamp":
      return "a lamp spoils it";
    default:
      return "it stands too low";
  }
}

const LEAST_MS = 20 * 60_000; // less of a target is not worth naming

/** What one rig does within a stretch: "The Veil, in OIII, until the skyline takes it at 20:45, then …". */
export function workWords(
  blocks: readonly TonightBlock[],
  window: { readonly startMs: number; readonly endMs: number },
  at: { readonly steps: NightSteps; readonly zone: string; readonly nameOf: (projectId: string) => string },
): string {
  return turnsOf(blocks)
    .flatMap(({ projectId, blocks: mine }) => {
      const [first, last] = [mine[0]!, mine.at(-1)!];
      const endMs = Math.min(window.endMs, last.endMs);
      if (endMs - Math.max(window.startMs, first.startMs) < LEAST_MS) return [];
      const channels = [...new Set(mine.map(channelsText))].join(", then ");
      const why = endMs >= last.endMs ? endWords(last, at.steps) : null;
      return [`${at.nameOf(projectId)}, in ${channels}, until ${why ? `${why} at ` : ""}${clockTime(endMs, at.zone)}`];
    })
    .join(", then ");
}

/** The rigs that work on a night, and what each does. */
export const rigsAtWork = (
  blocks: readonly TonightBlock[],
): readonly { readonly rigId: string; readonly blocks: readonly TonightBlock[] }[] => {
  const rigs = [...new Set(blocks.map((b) => b.rigIds.join("+")))];
  return rigs.map((key) => {
    const mine = blocks.filter((b) => b.rigIds.join("+") === key);
    return { rigId: mine[0]!.rigIds[0]!, blocks: mine };
  });
};

/** Why a night has no work, in a sentence. */
export function freeWords(reason: Extract<TonightChoice, { kind: "stayIn" }>["reason"] | null, others: string): string {
  switch (reason) {
    case "noDarkness":
      return "The Sun does not set on this night.";
    case "tooLight":
      return "The sky does not get dark on this night.";
    case "allDone":
      return others ? `Nothing left for you to do: ${others}.` : "Nothing left to do: every goal is met.";
    case "busy":
      return "This evening of the week is not free, by your own rules.";
    case "forbidden":
      return "You keep this night free.";
    case "leftFree":
      return "What is left is as good as done without this night, so the plan leaves it free.";
    case "nothingUp":
    case null:
      return "None of your projects has three quarters of an hour on this night.";
  }
}
