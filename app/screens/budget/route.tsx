import { useState } from "react";
import { data, useFetcher } from "react-router";
import { BudgetRow, type BudgetDraft } from "./BudgetRow";
import { Copies } from "~/components/Copies";
import { numberFault, textOf, type NumberSpec } from "~/components/forms/form-numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";
import { starsWithin } from "~/core/catalog";
import { clockHoursFor, subAdvice, subEffects, suggestedHours, isNarrow } from "~/core/exposure";
import { mosaicExtent, opticsOf, skyToFrame } from "~/core/framing";
import { formatHoursMinutes, parseNumber } from "~/core/notation";
import { nightOffer, type GoalData } from "~/core/plan";
import { loadLibrary, saveAll } from "~/storage/records";
import type { Route } from "./+types/route";
import { choiceOf } from "~/desk/choice";
import { findTarget } from "~/desk/targets";
import { requireContext } from "~/desk/project";
import { skyData } from "~/desk/chart-sky";
import { useEdits } from "~/components/forms/use-edits";

const HOURS: NumberSpec = { name: "hours", label: "Hours", unit: "h", min: 0, max: 500 };
const SUB: NumberSpec = { name: "sub", label: "Sub", unit: "s", min: 0, max: 7200, isAboveMin: true };
const STAR: NumberSpec = { name: "star", label: "Star", min: 0, max: 20 };

export async function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  const library = await loadLibrary();
  const c = requireContext(library, params.projectId);
  const { night } = choiceOf(library, new URL(request.url).searchParams);
  const offer = nightOffer(
    c.place.data,
    c.layout.centre,
    c.filters.map((f) => f.data.channel),
    night,
  );
  const entry = await findTarget(library, c.project.data.targetId).catch(() => null);
  const extent = mosaicExtent(c.layout);
  const sky = await skyData().catch(() => null);
  const inside = sky
    ? starsWithin(sky.stars, {
        ...c.layout.centre,
        radiusDeg: Math.hypot(extent.widthArcmin, extent.heightArcmin) / 110,
        faintest: 14,
      }).flatMap((i) => {
        const p = skyToFrame(c.layout, {
          frame: "icrs",
          raDeg: sky.stars.stars.raDeg[i]!,
          decDeg: sky.stars.stars.decDeg[i]!,
        });
        return p && Math.abs(p.xArcmin) < extent.widthArcmin / 2 && Math.abs(p.yArcmin) < extent.heightArcmin / 2
          ? [sky.stars.stars.magnitude[i]!]
          : [];
      })
    : null;
  return {
    goal: c.goal,
    rig: c.rig.data,
    place: c.place.data,
    filters: c.filters,
    panels: c.panels.length,
    offer,
    hoursMin: entry?.curated?.hoursMin ?? null,
    starMags: inside,
  };
}
clientLoader.hydrate = true as const;

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const saved = await saveAll([
    { kind: "goal", id: textOf(form, "id"), data: JSON.parse(textOf(form, "goal")), baseRev: textOf(form, "baseRev") },
  ]);
  return saved.ok
    ? data({ storage: null, rev: saved.value.revs[textOf(form, "id")]! })
    : data({ storage: saved.error.code, rev: null }, { status: 507 });
}

export const meta: Route.MetaFunction = () => [{ title: "Budget · Zenithar" }];

export default function BudgetRoute({ loaderData }: Route.ComponentProps) {
  const { goal, rig, place, filters, panels, offer, hoursMin, starMags } = loaderData;
  const [shownRev] = useState(goal.rev); // what was on the page when typing began
  const [drafts, setDrafts] = useState<readonly BudgetDraft[]>(() =>
    goal.data.channels.map((g) => ({
      channel: g.channel,
      filterId: g.filterId,
      hours: String(g.hoursPerPanel),
      sub: String(g.subSec),
    })),
  );
  const [star, setStar] = useState(String(goal.data.protectedMag));
  const fetcher = useFetcher<typeof clientAction>();
  const { send } = useEdits();
  const protectedMag = numberFault(STAR, star) ? goal.data.protectedMag : parseNumber(star)!;
  const questionFor = (filterId: string) => {
    const filter = filters.find((f) => f.id === filterId);
    const sky = { skyMagPerArcsec2: place.skyMagPerArcsec2, seeingArcsec: place.seeingArcsec, protectedMag };
    return filter ? { rig, filter: filter.data, ...sky } : null;
  };
  const rows = drafts.flatMap((d, i) => {
    const question = questionFor(d.filterId);
    if (!question) return [];
    const advice = subAdvice(question);
    const faults = { hours: numberFault(HOURS, d.hours), sub: numberFault(SUB, d.sub) };
    const isRight = !faults.hours && !faults.sub;
    const usable = (offer.channels[d.channel]?.usableMin ?? 0) / 60;
    const clockHours = isRight
      ? clockHoursFor(parseNumber(d.hours)! * panels, parseNumber(d.sub)!, rig.overheads, usable > 1 ? usable : 4)
      : null;
    const effects = faults.sub ? null : subEffects(question, parseNumber(d.sub)!);
    return [{ d, i, advice, effects, faults, isRight, clockHours }];
  });
  const isRight = rows.every((r) => r.isRight) && !numberFault(STAR, star);
  const total = rows.reduce((s, r) => s + (r.isRight ? parseNumber(r.d.hours)! * panels : 0), 0);
  const clock = rows.reduce((s, r) => s + (r.clockHours ?? 0), 0);
  const open = filters.filter((f) => !drafts.some((d) => d.channel === f.data.channel));
  const draftOf = (): GoalData => ({
    ...goal.data,
    protectedMag,
    channels: rows.map((r) => ({
      channel: r.d.channel,
      filterId: r.d.filterId,
      hoursPerPanel: parseNumber(r.d.hours)!,
      subSec: parseNumber(r.d.sub)!,
    })),
  });
  const isChanged = isRight && JSON.stringify(draftOf()) !== JSON.stringify(goal.data);
  const save = () => {
    void fetcher.submit(
      { id: goal.id, goal: JSON.stringify(draftOf()), baseRev: fetcher.data?.rev ?? shownRev },
      { method: "post" },
    );
  };
  const add = (filterId: string) => {
    const filter = filters.find((f) => f.id === filterId);
    const question = questionFor(filterId);
    if (!filter || !question) return;
    const advice = subAdvice(question);
    const hours = suggestedHours({
      hoursMin: hoursMin ?? 4,
      focalRatio: opticsOf(rig).focalRatio,
      skyMagPerArcsec2: place.skyMagPerArcsec2,
      isNarrow: isNarrow(filter.data.channel),
    });
    setDrafts([
      ...drafts,
      { channel: filter.data.channel, filterId, hours: String(hours), sub: String(advice.subSec) },
    ]);
  };
  return (
    <>
      <Copies
        now={goal.data}
        copies={goal.copies}
        onTake={(copy) => send([{ kind: "goal", id: goal.id, data: copy.data, baseRev: "latest" }])}
        onDismiss={() => send([{ kind: "goal", id: goal.id, data: goal.data, baseRev: "latest" }])}
      />
      {fetcher.data?.storage ? <StorageRefusal code={fetcher.data.storage} /> : null}
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="text-figure">
            {formatHoursMinutes(total)} of exposure, about {formatHoursMinutes(clock)} by the clock
          </p>
          <p className="text-soft max-w-[64ch]">
            {panels > 1 ? `${panels} panels, so every hour counts ${panels} times. ` : ""}The clock adds downloads,
            dithers, focusing, and a set-up and a flip each night.
            {hoursMin !== null
              ? ` Rule of thumb for this target: at least ${hoursMin} h at f/5 under 20 mag/arcsec².`
              : ""}
          </p>
        </div>
        <div className="w-44">
          <Field
            label="Stars that must not clip"
            unit="fainter than mag"
            inputMode="decimal"
            value={star}
            onChange={(e) => setStar(e.target.value)}
            fault={numberFault(STAR, star)}
          />
        </div>
      </div>
      <ul className="border-rule mt-4 border-b">
        {rows.map((r) => (
          <BudgetRow
            key={r.d.channel}
            draft={r.d}
            filterName={filters.find((f) => f.id === r.d.filterId)?.data.name ?? "?"}
            advice={r.advice}
            effects={r.effects}
            clipped={r.effects ? (starMags?.filter((m) => m < r.effects!.clippedMag).length ?? null) : null}
            clockHours={r.clockHours}
            panels={panels}
            faults={r.faults}
            onChange={(next) => setDrafts(drafts.map((d, k) => (k === r.i ? next : d)))}
            onRemove={() => setDrafts(drafts.filter((_, k) => k !== r.i))}
          />
        ))}
      </ul>
      <div className="mt-4 flex flex-wrap items-end justify-between gap-4">
        {open.length > 0 ? (
          <div className="w-56">
            <SelectField label="Add a channel" value="" onChange={(e) => add(e.target.value)}>
              <option value="">choose …</option>
              {open.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.data.name}
                </option>
              ))}
            </SelectField>
          </div>
        ) : (
          <span />
        )}
        <Button look="main" onClick={save} disabled={!isChanged || fetcher.state !== "idle"}>
          {isChanged ? "Save budget" : "Saved"}
        </Button>
      </div>
    </>
  );
}
