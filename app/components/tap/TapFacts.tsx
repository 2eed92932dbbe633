import { lazy, Suspense, useEffect, useState } from "react";

/** What a tapped thing says, and where it stands. */
export interface TapFact {
  readonly words: string;
  readonly at: Element;
}

const load = () => import("./TapFact").then((m) => ({ default: m.TapFactSheet }));
const TapFactSheet = lazy(load);

const ACTING = "a, button, input, select, textarea, label, summary, [role=button]";

/** What a finger tapped says on hover: the words of the nearest thing that has some; null for what acts when pressed. */
export function factUnder(target: EventTarget | null): TapFact | null {
  if (!(target instanceof Element) || target.closest(ACTING)) return null;
  const at = target.closest("[title]");
  const words = at?.getAttribute("title")?.trim();
  return at && words ? { words, at } : null;
}

/** Shows to a finger what a mouse learns by hovering: a tap on it opens its words, a tap elsewhere closes them. */
export function TapFacts() {
  const [fact, setFact] = useState<TapFact | null>(null);
  useEffect(() => {
    const onClick = (e: MouseEvent) => {
      if (!(e instanceof PointerEvent) || e.pointerType === "mouse" || e.pointerType === "") return;
      const found = factUnder(e.target);
      if (found) setFact(found);
    };
    document.addEventListener("click", onClick);
    return () => document.removeEventListener("click", onClick);
  }, []);
  if (!fact) return null;
  return (
    <Suspense>
      <TapFactSheet fact={fact} onClose={() => setFact(null)} />
    </Suspense>
  );
}
