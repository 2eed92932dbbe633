import { useEffect } from "react";
import { useNavigate } from "react-router";
import { useDesk } from "~/at-desk";
import { isShortcut, isTyping } from "~/components/shortcuts";
import { addNights, type NightDate } from "~/core/time";
import { areSingleKeysOn } from "~/desk/records/single-keys";
import { STATIONS } from "./ShellFrame";

/** The keys that work on every page: search always, single letters and figures unless they were switched off. */
export function useShellKeys({
  search,
  linkTo,
  night,
  today,
  onSearch,
  onHelp,
}: {
  readonly search: string;
  readonly linkTo: (night: string) => string;
  readonly night: NightDate;
  readonly today: NightDate;
  readonly onSearch: () => void;
  readonly onHelp: () => void;
}): void {
  const desk = useDesk();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isShortcut(event, "search")) {
        event.preventDefault();
        onSearch();
        return;
      }
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !areSingleKeysOn(desk)) return;
      const station = STATIONS.find((s) => s.key === event.key);
      const next = isShortcut(event, "nightAfter")
        ? addNights(night, 1)
        : isShortcut(event, "nightBefore")
          ? addNights(night, -1)
          : isShortcut(event, "tonight")
            ? today
            : null;
      if (station) void navigate({ pathname: station.to, search });
      else if (next) void navigate(linkTo(next), { preventScrollReset: true });
      else if (isShortcut(event, "help")) onHelp();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [desk, navigate, search, linkTo, night, today, onSearch, onHelp]);
}
