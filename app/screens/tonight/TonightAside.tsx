import type { ReactNode } from "react";
import { textDraft, useDraftState } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import type { NightAccount } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { cautionsOf, type AwayNight, type TonightChoice, type WeighedNight } from "~/core/plan";
import { cautionWords } from "~/components/words/caution-words";
import type { NightEvents } from "~/core/sky";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { TonightFacts } from "./TonightFacts";
import { Field } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import type { TonightAnswer, TonightIntent } from "./intents";
import { reasonWords } from "./verdict-words";

interface View {
  readonly place: { readonly timeZone: string };
  readonly night: string;
  readonly choice: TonightChoice;
  readonly account: NightAccount | null;
  readonly overheadMin: number;
  readonly events: NightEvents;
  readonly illuminatedFraction: number;
  readonly weather: { readonly climatology: number };
  readonly weighed: WeighedNight;
  readonly away: readonly AwayNight[];
  readonly wishHours: number;
  readonly rules: { readonly gustLimitKmh: number; readonly windShare?: number };
  readonly camera: { readonly workingTempC: number } | null;
  readonly isChanceAssumed: boolean;
}

/** Beside the verdict: look up, the main act, what to mind, where the night goes, Sun and Moon, places to drive to. */
export function TonightAside({
  view,
  look,
  act,
  next,
}: {
  readonly view: View;
  readonly look: ReactNode;
  readonly act: ReactNode;
  readonly next: ReactNode;
}) {
  const wish = useAct<TonightIntent, TonightAnswer>();
  const typed = useDraftState(
    { name: "wish hours", title: "the hours worth going out for" },
    String(view.wishHours),
    textDraft,
  );
  const take = (hours: string) => {
    if (hours !== String(view.wishHours)) void wish.act({ act: "wish", hours });
  };
  const mind = cautionsOf(
    view.weighed.hours.filter((h) => h.usableMin > 0),
    { ...view.rules, coolsToC: view.camera?.workingTempC ?? null },
  );
  return (
    <aside className="contents lg:block lg:space-y-4">
      <div className="order-2 space-y-4">
        {look}
        {act}
      </div>
      <div className="order-4 space-y-4">
        {mind.length > 0 ? (
          <Panel title="Before you go out">
            <ul className="space-y-1">
              {mind.map((m) => (
                <li key={m.code}>{cautionWords(m, view.place.timeZone)}</li>
              ))}
            </ul>
          </Panel>
        ) : null}
        {view.away.length > 0 ? (
          <Panel title="Or drive" aside="worth in hours here">
            <ul>
              {view.away.map((a) => (
                <li
                  key={a.placeId}
                  className="border-rule grid grid-cols-[1fr_auto] gap-x-3 border-t py-1 first:border-0"
                >
                  <span>{a.name}</span>
                  <span className="font-semibold">
                    {formatMinutes(Math.round(a.weighed.expectedWorthMin * a.lightFactor))}
                  </span>
                  <span className="text-note text-soft col-span-2">
                    {Math.round(a.weighed.odds.atLeastWish * 100)} % chance of {view.wishHours} h,{" "}
                    {formatMinutes(2 * a.travelMin)} on the road; here{" "}
                    {formatMinutes(Math.round(view.weighed.expectedWorthMin))}.{" "}
                    {a.reasons[0] ? reasonWords(a.reasons[0], a.timeZone, view.place.timeZone) : ""}
                  </span>
                </li>
              ))}
            </ul>
            <p className="text-note text-soft mt-1">
              <Why title="How it is compared">
                <p>
                  Expected worth there after the drive and the set-up, times 10^(0.4 Δμ) for its darker sky. It pays
                  when it beats staying by an hour for every hour on the road, both ways. Drive rested.
                </p>
              </Why>
            </p>
          </Panel>
        ) : null}
        {next}
        {view.account ? (
          <Panel
            title="Where the night goes"
            aside={view.choice.kind === "go" ? `${view.choice.blocks[0]?.channel ?? ""}, first target` : undefined}
          >
            <NightAccountChart account={view.account} overheadMin={view.overheadMin} />
          </Panel>
        ) : null}
        <TonightFacts
          events={view.events}
          illuminatedFraction={view.illuminatedFraction}
          clearChance={view.weather.climatology}
          isChanceAssumed={view.isChanceAssumed}
          zone={view.place.timeZone}
          night={view.night}
        />
        <Field
          label="Minimum hours"
          unit="usable hours"
          inputMode="decimal"
          value={typed.value}
          onChange={(e) => typed.set(e.target.value)}
          fault={wish.answer?.fault}
          onBlur={(e) => take(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Enter") take(e.currentTarget.value);
          }}
        />
      </div>
    </aside>
  );
}
