import { useEffect, useState } from "react";
import type { SharingRules } from "~/core/plan";
import type { SharingView } from "~/desk/projects/who-shoots";
import type { Sharing } from "~/desk/sky/answers";

/** So long nothing more is typed before it is worked out, ms. */
const PAUSE_MS = 250;

/** What rules come to that are typed and not kept; null where there are none, or until it is known. The last answer stays meanwhile. */
export function useTried(view: SharingView, rules: SharingRules | null): Sharing | null {
  const [tried, setTried] = useState<Sharing | null>(null);
  const key = rules === null ? null : JSON.stringify(rules);
  const { ask } = view;
  useEffect(() => {
    if (key === null) return;
    const left = new AbortController();
    const timer = setTimeout(() => {
      ask(JSON.parse(key) as SharingRules, left.signal).then(
        (answer) => !left.signal.aborted && setTried(answer),
        () => undefined, // another one was asked for, or the page is left; the kept one stands
      );
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      left.abort();
    };
  }, [key, ask]);
  return key === null ? null : tried;
}
