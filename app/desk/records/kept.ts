import { slot } from "~/desk/desk";
import { createDrafts } from "~/storage/drafts";
import { createHints } from "~/storage/hints";
import { NotFetched, type Checks } from "~/storage/reading";
import { createStore } from "~/storage/store";
import { NotStarted } from "~/workers/client";
import { browserIdOf } from "~/storage/who";

export type { StorageState } from "~/storage/ports";

/** This browser's own name, for whoever has said none. */
const browserId = slot(({ cupboard, ids }) => browserIdOf(cupboard, ids));

/** Who the owner of a library is before they have said so. */
export const nobodyYet = slot((desk) => () => `member-${desk.at(browserId)()}`);

const orNotFetched = <T>(answer: Promise<T>): Promise<T> =>
  answer.catch((error: unknown) => {
    throw error instanceof NotStarted ? new NotFetched(error.message) : error;
  });

/** Who checks this desk's records: it is started by the first that needs it. */
export const theChecks = slot(({ workers: { reader } }): Checks => {
  let versions: ReturnType<Checks["versions"]> | null = null;
  return {
    records: (raws) => (raws.length === 0 ? Promise.resolve([]) : orNotFetched(reader.records(raws))),
    refused: (edits) => orNotFetched(reader.refused(edits)),
    versions() {
      versions ??= orNotFetched(reader.versions());
      versions.catch(() => (versions = null));
      return versions;
    },
  };
});

/** The records of this desk; the demo's begin with its group. */
export const theStore = slot((desk) =>
  createStore({
    cupboard: desk.cupboard,
    clock: desk.clock,
    ids: desk.ids,
    checks: desk.at(theChecks),
    nobody: desk.at(nobodyYet),
    fillWith: desk.isDemo ? () => desk.supplies.sample("gardens") : null,
  }),
);

/** What is being typed or dragged on this page and is not saved. */
export const theDrafts = slot(({ cupboard, ids }) => createDrafts(cupboard, ids));

/** First explanations that were put away. */
export const theHints = slot(({ cupboard }) => createHints(cupboard.notes));
