import { PREPARED, PREPARED_PLACE, PREPARED_TARGET, WAYS, type Prepared, type WayKey } from "~/core/rehearsal";
import type { Desk } from "~/desk/desk";
import { rehearsalOf } from "~/desk/plan/rehearsal";
import { ownContextsOf } from "~/desk/projects/project";
import { loadChoice } from "~/desk/sky/choice";

/** What is rehearsed: the sheet of the chosen night, or a prepared one. */
export type RehearsedNight = "sheet" | Prepared;

const isPrepared = (word: string): word is Prepared => (PREPARED as readonly string[]).includes(word);
const isWay = (word: string): word is WayKey => (WAYS as readonly string[]).includes(word);

/** What an address says of a rehearsal; an address that says something else rehearses nothing. */
export function askedOf(params: URLSearchParams): {
  readonly of: RehearsedNight | null;
  readonly seed: number;
  readonly ways: readonly WayKey[];
} {
  // prettier-ignore
  const of = params.get("of") ?? "";
  const seed = Number(params.get("sky") ?? "1");
  const ways = (params.get("did") ?? "").split(".").filter(isWay);
  return {
    of: of === "sheet" || isPrepared(of) ? of : null,
    seed: Number.isInteger(seed) && seed >= 1 && seed <= 9999 ? seed : 1,
    ways,
  };
}

/** A night as far as it was decided, or the nights there are to rehearse. */
export async function loadRehearsal(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const params = new URL(request.url).searchParams;
  const asked = askedOf(params);
  const contexts = ownContextsOf(library);
  if (asked.of === null || asked.of === "sheet") {
    const own = await rehearsalOf(library, choice, contexts, params.get("place"));
    const hasSheet = own !== null;
    if (asked.of === null || !own) return { night: choice.night, hasSheet, view: null };
    const played = await desk.workers.rehearsal.play({ night: own.night, seed: asked.seed, ways: asked.ways });
    const view = { ...asked, of: asked.of, ...own, played };
    return { night: choice.night, hasSheet, view };
  }
  const target = await desk.workers.sky.entry(PREPARED_TARGET);
  if (!target) throw new Error(`${PREPARED_TARGET} is not in the catalogue`);
  const night = await desk.workers.rehearsal.prepared(asked.of, target);
  const played = await desk.workers.rehearsal.play({ night, seed: asked.seed, ways: asked.ways });
  const view = { ...asked, of: asked.of, night, zone: PREPARED_PLACE.timeZone, isSimulated: true, played };
  return { night: choice.night, hasSheet: false, view };
}

/** A rehearsal as its page shows it. */
export type RehearsalView = NonNullable<Awaited<ReturnType<typeof loadRehearsal>>["view"]>;
