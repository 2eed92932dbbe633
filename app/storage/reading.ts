/** What checks records could not be fetched. */
export class NotFetched extends Error {}

/**
 * How records are checked. Schemas are large: they come with the first thing that needs checking, which pages of this version do not.
 * Rejects with `NotFetched` where neither the network nor the browser's copy of the app has them.
 */
export const reading = () =>
  import("./checks").catch((error: unknown) => {
    throw new NotFetched(error instanceof Error ? error.message : "not fetched");
  });
