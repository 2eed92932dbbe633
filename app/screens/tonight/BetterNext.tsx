import { useDesk } from "~/at-desk";
import { theHints } from "~/desk/records/kept";
import { useState } from "react";
import { Link } from "react-router";
import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { showRound } from "~/components/tour";
import { Panel } from "~/components/ui/Panel";
import type { BetterNext as Next } from "~/desk/kit/better";

/** What to do, what it makes better, and where. */
function wordsOf({ what, id, left }: Next): { readonly to: string; readonly act: string; readonly better: string } {
  switch (what) {
    case "project":
      return { to: "/targets", act: "Begin a picture", better: "then nights are planned and weighed for it" };
    case "skyline":
      return {
        to: `/kit/places/${id}`,
        act: "Draw your skyline",
        better: "then hours behind roofs and trees stop counting",
      };
    case "camera":
      return {
        to: `/kit/rigs/${id}`,
        act: "Enter your camera’s own noise and gain",
        better: "then sub lengths and hours are its own, not those of its class",
      };
    case "sky":
      return {
        to: `/kit/places/${id}`,
        act: "Measure your sky",
        better: "a sky by its look is good to half a magnitude: hours to a factor of two",
      };
    case "nights":
      return {
        to: "/log",
        act: `Log ${left === 3 ? "three nights" : counted(left, "more night")}`,
        better: "then overheads, lost subs and the forecasts to trust are learnt",
      };
  }
}

/** A short list of what makes answers better next; each line can be put away for good. */
export function BetterNext({ list, search }: { readonly list: readonly Next[]; readonly search: string }) {
  const desk = useDesk();
  const name = ({ what, id }: Next) => `better ${what} ${id}`;
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set());
  const open = list.filter((n) => !gone.has(name(n)) && !desk.at(theHints).isRead(name(n)));
  if (open.length === 0) return null;
  return (
    <Panel title="What makes this better">
      <ul className="space-y-2">
        {open.map((n) => {
          const { to, act, better } = wordsOf(n);
          return (
            <li key={name(n)} className="flex items-start justify-between gap-2">
              <p>
                <Link to={`${to}${search}`} className="underline underline-offset-4">
                  {act}
                </Link>
                <span className="text-note text-soft block">{better}</span>
              </p>
              <Button
                look="plain"
                className="min-h-6 py-0 no-underline"
                aria-label={`Put away: ${act}`}
                onClick={() => {
                  desk.at(theHints).markRead(name(n));
                  setGone(new Set([...gone, name(n)]));
                }}
              >
                ×
              </Button>
            </li>
          );
        })}
      </ul>
      <Button look="plain" className="mt-2 min-h-6 py-0" onClick={() => void showRound()}>
        Show me round, four steps
      </Button>
    </Panel>
  );
}
