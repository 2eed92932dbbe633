import { useDesk } from "~/at-desk";
import { startTransition, useEffect, useMemo, useState } from "react";
import { useRevalidator } from "react-router";
import { isWanted, type SeasonPlan } from "~/core/season";
import { ownLocks } from "~/desk/plan/locks";
import type { Library } from "~/desk/records/library";
import { eveningsSoon, seasonInTurns } from "~/desk/plan/season";
import { askForecasts, whenAsked } from "~/desk/plan/asking";
import type { NightMark } from "./NightRibbon";

/** What the nights are marked with: work taken by the log, planned by the plan, kept by hand. The plan comes when the page is up. */
export function useNightMarks(library: Library): ReadonlyMap<string, NightMark> {
  const [plan, setPlan] = useState<SeasonPlan | null>(null);
  useEffect(() => {
    let isHere = true;
    let leave = () => undefined as void;
    const follow = async () => {
      const { plan: soon } = await eveningsSoon(library);
      if (isHere) startTransition(() => setPlan(soon));
      // What is planned without the forecasts would be planned again with them.
      await whenAsked(library.desk);
      if (!isHere) return;
      const run = await seasonInTurns(library);
      if (!isHere) return;
      if (run.latest()) startTransition(() => setPlan(run.latest()));
      leave = run.listen((better) => startTransition(() => setPlan(better)));
    };
    follow().catch(() => undefined); // the screens that show the plan say what is wrong with it
    return () => {
      isHere = false;
      leave();
    };
  }, [library]);
  return useMemo(() => {
    const marks = new Map<string, NightMark>();
    for (const e of plan?.evenings ?? [])
      if (e.blocks.some((b) => isWanted(plan!, b.projectId, e.night))) marks.set(e.night, "planned");
    for (const lock of ownLocks(library)) marks.set(lock.data.night, "kept");
    for (const night of library.log.byNight.keys()) marks.set(night, "taken");
    return marks;
  }, [plan, library]);
}

/** Asks the forecasts of the places of the season once the app is up; what is new is planned with on every screen. */
export function useForecasts(): void {
  const desk = useDesk();
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const controller = new AbortController();
    askForecasts(desk, controller.signal).then(
      (isNew) => isNew && !controller.signal.aborted && void revalidate(),
      () => undefined, // each source says on Tonight why it did not answer
    );
    return () => controller.abort(new Error("left"));
  }, [desk, revalidate]);
}
