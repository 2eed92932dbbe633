import { useDesk } from "~/at-desk";
import { startTransition, useEffect, useState } from "react";
import type { RankedEntry, RankQuestion } from "~/desk/sky/answers";

const MOST_FOUND = 80;

/** What the catalogue answers to a name; the last answer stays until the next one comes. */
export function useFound(
  query: string,
  question: RankQuestion,
): { readonly query: string; readonly lines: readonly RankedEntry[] } {
  const desk = useDesk();
  const [found, setFound] = useState<{ readonly query: string; readonly lines: readonly RankedEntry[] }>({
    query: "",
    lines: [],
  });
  useEffect(() => {
    if (query === "") return;
    let isCurrent = true;
    void desk.workers.sky.find(query, MOST_FOUND, question).then((lines) => {
      if (isCurrent) startTransition(() => setFound({ query, lines }));
    });
    return () => {
      isCurrent = false;
    };
  }, [desk, query, question]);
  return found;
}
