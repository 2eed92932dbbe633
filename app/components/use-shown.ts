import { useDeferredValue } from "react";

/**
 * How many of a long list's costly drawings to draw: the first few with the page, the rest when there is time. The page
 * answers at once, however long the list.
 */
export const useShown = (count: number, first: number): number => useDeferredValue(count, Math.min(count, first));
