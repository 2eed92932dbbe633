import { Waiting } from "~/components/Waiting";
import { Suspense } from "react";
import { Await } from "react-router";
import { longNight } from "~/components/clock";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { numberFault } from "~/components/forms/form-numbers";
import { fixed, percent } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { useTried } from "./use-tried";
import { WAY_WORDS, WayTable } from "./WayTable";
import type { Channel } from "~/core/exposure";
import { type SharingRules } from "~/core/plan";
import { SHARING_FIELDS } from "~/core/records";
import type { SharingView } from "~/desk/projects/who-shoots";
import type { Sharing } from "~/desk/sky/answers";
import {
  cellName,
  isSameSharing,
  readRatio,
  readTypedSharing,
  rulesOf,
  typedSharing,
  type TypedSharing,
} from "./sharing-form";

interface Props {
  readonly projectId: string;
  readonly view: SharingView;
  readonly members: Readonly<Record<string, string>>;
  /** Whose library it is. */
  readonly me: string | null;
  /** Channels one has promised now. */
  readonly promised: readonly Channel[];
  readonly isBusy: boolean;
  readonly onKeep: (rev: string, rules: SharingRules) => void;
  readonly onPromise: (channels: readonly Channel[]) => void;
}

/** Ways to share the open hours among the members, what each comes to, and how likely it is done in time. */
export function WhoShoots(props: Props) {
  if (!props.view.answer) return null;
  return (
    <Suspense fallback={<Waiting words="Working out who shoots what best …" heightPx={200} />}>
      <Await
        resolve={props.view.answer}
        errorElement={<p className="text-rust mt-6">Who shoots what could not be worked out.</p>}
      >
        {(sharing: Sharing | null) =>
          sharing && sharing.goals.some((g) => g.hours > 0.05) ? <Sharer {...props} kept={sharing} /> : null
        }
      </Await>
    </Suspense>
  );
}

const LEAST_HOURS = 0.2; // less is no promise
const FLOORS = [0, 0.1, 0.2, 0.25, 0.33] as const;

function Sharer({
  projectId,
  view,
  members,
  me,
  promised,
  kept,
  isBusy,
  onKeep,
  onPromise,
}: Props & { readonly kept: Sharing }) {
  const typed = useDraftState<TypedSharing>(
    { name: `sharing ${projectId}`, title: "who shoots what" },
    typedSharing(view.rev, view.rules),
    readTypedSharing,
    isSameSharing,
  );
  const { value } = typed;
  const set = (change: Partial<TypedSharing>) => typed.set({ ...value, ...change });
  const channels = kept.goals.map((g) => g.channel);
  const who = (id: string) => members[id] ?? "someone";
  const hoursFault = (text: string | undefined) =>
    text === undefined || text.trim() === "" ? undefined : numberFault(SHARING_FIELDS.hours, text);
  const ratio = readRatio(value.ratio, channels.length);
  const isRight =
    [...Object.values(value.hours), ...Object.values(value.hand)].every((t) => !hoursFault(t)) && ratio !== null;
  const rules = isRight
    ? rulesOf(
        value,
        kept.sites.map((s) => s.memberId),
        channels,
      )
    : null;
  const isChanged = !isSameSharing(value, typedSharing(view.rev, view.rules));
  const tried = useTried(view, isChanged ? rules : null);
  const sharing = tried ?? kept;
  const shown = sharing.options.find((o) => o.way === value.way) ?? sharing.options[0]!;
  const mine = channels.filter((c) => (shown.split.hours[me ?? ""]?.[c] ?? 0) > LEAST_HOURS);
  const isPromised = mine.length === promised.length && mine.every((c) => promised.includes(c));
  // With more time than is needed each gives their part of what is: nobody has to give all they have.
  const needed = (memberId: string, c: Channel) =>
    (shown.split.hours[memberId]?.[c] ?? 0) / (shown.way === "hand" ? 1 : Math.max(1, shown.split.fullness));
  const startHand = () => {
    const from =
      Object.keys(value.hand).length > 0
        ? value.hand
        : Object.fromEntries(
            Object.entries(shown.split.hours).flatMap(([id, of]) =>
              (Object.keys(of) as Channel[]).map((c) => [cellName(id, c), fixed(needed(id, c), 1)]),
            ),
          );
    set({ way: "hand", hand: from });
  };
  const cell = "border-rule border-t py-2 pr-4 text-right";
  return (
    <Section title="Who shoots what" aside={`hours still open, to ${longNight(view.until)}`}>
      {typed.isRestored ? <RestoredNote onDiscard={typed.discard} /> : null}
      <WayTable
        sharing={sharing}
        way={value.way}
        who={who}
        onWay={(way) => (way === "hand" ? startHand() : set({ way }))}
      />
      {sharing.options.some((o) => o.way === "advantage") ? null : (
        <p className="text-rust mt-2">
          {channels
            .filter((c) => sharing.sites.every((s) => !(s.rates[c] ?? 0) || s.hours === 0))
            .map((c) => `Nobody has a filter for ${c}, or hours for it.`)
            .join(" ") || "The least share of each cannot be held with these hours."}
        </p>
      )}
      <div className="mt-4 overflow-x-auto">
        <table className="w-full min-w-[560px]">
          <caption className="text-note text-soft pb-1 text-left">
            {WAY_WORDS[value.way]}: hours of their own
            {shown.split.fullness > 1 && shown.way !== "hand" ? " that meet every goal" : ""}; in brackets what an hour
            is at the reference
          </caption>
          <thead>
            <tr className="text-note text-soft text-right">
              <th scope="col" className="text-left font-normal">
                Who
              </th>
              <th scope="col" className="pr-4 font-normal">
                Can give
              </th>
              {channels.map((c) => (
                <th key={c} scope="col" className="pr-4 font-normal">
                  {c}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sharing.sites.map((s) => (
              <tr key={s.memberId}>
                <th scope="row" className="border-rule border-t py-2 text-left font-semibold">
                  {who(s.memberId)}
                </th>
                <td className={`${cell} w-36`}>
                  <Field
                    label={`Hours ${who(s.memberId)} can give`}
                    inputMode="decimal"
                    placeholder={`${fixed(s.skyHours, 0)} by the sky`}
                    value={value.hours[s.memberId] ?? ""}
                    fault={hoursFault(value.hours[s.memberId])}
                    onChange={(e) => set({ hours: { ...value.hours, [s.memberId]: e.target.value } })}
                  />
                </td>
                {channels.map((c) => {
                  const rate = s.rates[c] ?? 0;
                  const hours = needed(s.memberId, c);
                  const key = cellName(s.memberId, c);
                  return (
                    <td key={c} className={cell}>
                      {rate === 0 ? (
                        <span className="text-faint">no filter</span>
                      ) : value.way === "hand" ? (
                        <Field
                          label={`${who(s.memberId)}, ${c}`}
                          unit="h"
                          inputMode="decimal"
                          value={value.hand[key] ?? ""}
                          fault={hoursFault(value.hand[key])}
                          onChange={(e) => set({ hand: { ...value.hand, [key]: e.target.value } })}
                        />
                      ) : (
                        <>
                          {hours < 0.05 ? "–" : `${fixed(hours, 1)} h`}{" "}
                          <span className="text-note text-faint">({fixed(rate, 2)})</span>
                        </>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr>
              <th scope="row" className="border-soft text-soft border-t py-2 text-left font-normal">
                Still open
              </th>
              <td className="border-soft border-t" />
              {sharing.goals.map((g) => (
                <td key={g.channel} className="border-soft text-soft border-t py-2 pr-4 text-right">
                  {fixed(g.hours, 1)} h
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <div className="w-56">
          <SelectField
            label="Everyone gives at least"
            value={String(value.floor)}
            onChange={(e) => set({ floor: Number(e.target.value) })}
          >
            {[...new Set([...FLOORS, value.floor])].map((f) => (
              <option key={f} value={String(f)}>
                {f === 0 ? "nothing in particular" : `${percent(f)} of the picture`}
              </option>
            ))}
          </SelectField>
        </div>
        {channels.length > 1 ? (
          <div className="w-56">
            <Field
              label={`Ratio ${channels.join(":")}`}
              placeholder="as the budget says"
              value={value.ratio}
              fault={
                ratio === null
                  ? `Write ${channels.length} numbers, like ${channels.map((_, i) => (i === 0 ? 3 : 4)).join(":")}.`
                  : undefined
              }
              onChange={(e) => set({ ratio: e.target.value })}
            />
          </div>
        ) : null}
        <Button
          look="main"
          disabled={!isChanged || !isRight || isBusy}
          onClick={() => rules && onKeep(value.rev, rules)}
        >
          Keep this for all
        </Button>
        {tried ? (
          <p role="status" className="text-lamp">
            Worked out as typed; not kept yet.
          </p>
        ) : null}
        {me !== null && mine.length > 0 && !isChanged && !isPromised ? (
          <Button look="plain" disabled={isBusy} onClick={() => onPromise(mine)}>
            Promise mine: {mine.join(", ")}
          </Button>
        ) : null}
      </div>
      <p className="text-note text-soft mt-2">
        <Why title="How it is worked out">
          <p>
            Hours each can give are those in which the target can be shot there, times the chance of clear nights,
            unless they promised others. An hour of a channel is worth what sky, rig, filter, Moon and direction make of
            it at the reference, over what its frame covers. “Each what they do best” fills the worst-filled goal as far
            as it goes (a linear program); a city sky then mostly takes narrow bands. Odds come from {fixed(2000)}{" "}
            seasons drawn night by night, each place with its own sky, clear nights clinging together. Good to about 20
            %, as the hours are.
          </p>
        </Why>
      </p>
    </Section>
  );
}
