import { useDesk } from "~/at-desk";
import { theHints } from "~/desk/records/kept";
import { useState } from "react";
import { Link } from "react-router";
import { RoundButton } from "~/components/RoundButton";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { betterWords } from "~/components/words/better-words";
import type { BetterNext as Next } from "~/desk/kit/better";

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
          const { to, act, better } = betterWords(n);
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
      <RoundButton className="mt-2 min-h-6" />
    </Panel>
  );
}
