import { counted, fixed, percent, times } from "~/components/numbers";
import type { Save } from "~/core/season";

/** What would finish a project after all, as the end of "It would be finished with …". */
export function saveWords(save: Save): string {
  switch (save.kind) {
    case "lessGoal":
      return `a goal of ${percent(save.share)} of the one set`;
    case "nightsAt":
      return `about ${counted(save.nights, "clear night")} at ${save.placeName}`;
    case "nextYear":
      return `next year, with about ${counted(save.weeks, "week")} like its best ones now`;
    case "friendHours":
      return `${fixed(save.hours, 1)} h at its best from a friend`;
    case "lower":
      return `everything from ${save.altitudeDeg}° on, where a clear night brings ${times(save.gain)} as much`;
  }
}
