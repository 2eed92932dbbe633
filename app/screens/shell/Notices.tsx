import { useEffect } from "react";
import { useDesk } from "~/at-desk";
import { isOnPage, readDraft } from "~/components/forms/drafts";
import { useSay } from "~/components/ui/Toasts";
import { theDrafts } from "~/desk/records/kept";
import { onNotice } from "~/desk/records/notices";

/** Says what the desk has done, and, when the app opens, what was typed before and is not saved. */
export function Notices() {
  const desk = useDesk();
  const say = useSay();
  useEffect(() => onNotice(desk, (notice) => say(notice.text, notice.undoId)), [desk, say]);
  useEffect(() => {
    // What is on the page by then says so itself.
    const timer = setTimeout(() => {
      const names = desk
        .at(theDrafts)
        .names()
        .filter((name) => !isOnPage(name));
      const titles = names.flatMap((name) => readDraft(desk.at(theDrafts).get(name))?.title ?? []);
      if (titles.length > 0)
        say(`Not saved yet, from last time: ${titles.slice(0, 4).join("; ")}. It is there as you left it.`);
    }, 1500);
    return () => clearTimeout(timer);
  }, [desk, say]);
  useEffect(() => {
    // What failed and was not heard of where it was asked for is said here, so that nobody waits for it.
    const onFailed = ({ reason }: PromiseRejectionEvent) => {
      if (!(reason instanceof Error) || GIVEN_UP.has(reason.message) || reason.name === "AbortError") return;
      say(`Something could not be done: ${reason.message}. What you entered is kept; try again, or reload the page.`);
    };
    window.addEventListener("unhandledrejection", onFailed);
    return () => window.removeEventListener("unhandledrejection", onFailed);
  }, [say]);
  return null;
}

/** Reasons that somebody gave for stopping: nothing has failed. */
const GIVEN_UP = new Set(["left", "stopped"]);
