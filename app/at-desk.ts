import { use, createContext } from "react";
import { createContext as createRouterContext, type RouterContextProvider } from "react-router";
import { createDesk, type Desk } from "~/desk/desk";
import { browserFolders } from "~/services/folders";
import { createSources } from "~/services/sources";
import { supplies } from "~/services/supplies";
import { browserClock, browserCupboard, browserIds } from "~/storage/browser";
import { createWorkers } from "~/workers/workers";

/** Puts up the desk of this tab: the server writes on the page whether it is the demo, and what service it knows. */
export function deskOfThisTab(): Desk {
  const page = document.documentElement;
  const clock = browserClock(page);
  const workers = createWorkers();
  const hasServer = page.dataset["static"] === undefined;
  return createDesk({
    cupboard: browserCupboard(clock.isDemo),
    clock,
    ids: browserIds,
    workers,
    sources: createSources(page.dataset["forecast"], workers.reader.forecast, hasServer),
    supplies,
    folders: browserFolders,
    surveys: (page.dataset["surveys"] ?? "").split(" ").filter((id) => id !== ""),
  });
}

/** Where loaders and actions find the desk. */
export const deskContext = createRouterContext<Desk>();

/** The desk, for loaders and actions. */
export const deskOf = (context: Readonly<RouterContextProvider>): Desk => context.get(deskContext);

/** Where components find the desk. */
export const DeskContext = createContext<Desk | null>(null);

/** The desk, for components under the shell. */
export function useDesk(): Desk {
  const desk = use(DeskContext);
  if (!desk) throw new Error("no desk: this component stands outside the shell");
  return desk;
}
