import { deskOf } from "~/at-desk";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { NightMeasureChart } from "~/components/charts/later-charts";
import { longNight, shortNight } from "~/components/clock";
import { WithDraft } from "~/components/forms/drafts";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Field, SelectField } from "~/components/ui/Field";
import { Empty, Section } from "~/components/ui/Panel";
import { measureOf, NIGHT_MEASURES, troublesAbout, type NightFacts, type NightMeasure } from "~/core/ledger";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { factsAction } from "./action";
import { FactsForm } from "./FactsForm";
import { inUnit, unitName } from "~/components/measures";
import { guidingWords, MEASURE_WORDS, polarWords, timeWords } from "./facts-words";
import { loadFacts, type FactsView } from "./load";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadFacts(deskOf(context), request);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => factsAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Night facts · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function NightFactsRoute({ loaderData: view, actionData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (!view)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Night facts</h1>
        <p className="my-3">
          Nights are written down for a place:{" "}
          <Link to="/start" className="underline underline-offset-4">
            say where you observe from
          </Link>{" "}
          first.
        </p>
      </Empty>
    );
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="min-w-0">
        <p className="text-note text-soft">
          <Link to={`/log${search}`} className="underline underline-offset-4">
            Log
          </Link>{" "}
          · {view.placeName}
        </p>
        <h1 className="text-headline">{longNight(view.night)}</h1>
        <RigChoice view={view} search={search} />
        <StorageRefusal fault={actionData?.refusal ?? null} />
        <WithDraft
          rev={view.facts?.rev ?? ""}
          name={`night ${view.placeId} ${view.night} ${view.rigId}`}
          title="facts of a night"
        >
          <FactsForm view={view} faults={actionData?.faults ?? {}} />
        </WithDraft>
        <TimeWords view={view} />
        {view.facts ? <Verdicts facts={view.facts.data} view={view} /> : null}
        <Charts view={view} />
      </div>
      <aside>
        <Troubles nights={view.all} search={search} />
      </aside>
    </div>
  );
}

/** Programmed, taken, kept, and what of it was lost to what. */
function TimeWords({ view }: { readonly view: FactsView }) {
  const words = timeWords(view.facts?.data ?? {}, view.exposed);
  return words === "" ? null : (
    <p className="mt-3" aria-label="Where the time went">
      {words}
    </p>
  );
}

/** Whose night it is: every rig's is written down by itself. */
function RigChoice({ view, search }: { readonly view: FactsView; readonly search: string }) {
  if (view.rigs.length < 2) return null;
  const to = (rigId: string) => {
    const params = new URLSearchParams(search);
    params.set("night", view.night);
    params.set("place", view.placeId);
    params.set("rig", rigId);
    return `/log/nights?${params.toString()}`;
  };
  return (
    <nav aria-label="Rig" className="mt-1 flex flex-wrap gap-x-4">
      {view.rigs.map((r) => (
        <Link
          key={r.id}
          to={to(r.id)}
          aria-current={r.id === view.rigId ? "page" : undefined}
          className={r.id === view.rigId ? "font-semibold" : "text-soft underline underline-offset-4"}
        >
          {r.name}
        </Link>
      ))}
    </nav>
  );
}

/** What guiding and the polar axis came to. */
function Verdicts({ facts, view }: { readonly facts: NightFacts; readonly view: FactsView }) {
  const rig = view.rigs.find((r) => r.id === facts.rigId) ?? view.rigs[0];
  const words = [
    rig ? guidingWords(facts, rig.scaleArcsec) : "",
    rig ? polarWords(facts, view.latitudeDeg, rig) : "",
  ].filter((w) => w !== "");
  if (words.length === 0) return null;
  return (
    <ul className="mt-3" aria-label="What it came to">
      {words.map((w) => (
        <li key={w}>{w}</li>
      ))}
    </ul>
  );
}

/** One measure over all nights of the place. */
function Charts({ view }: { readonly view: FactsView }) {
  const of = (m: NightMeasure) =>
    view.all.flatMap((f) => {
      const value = measureOf(f, m, view.latitudeDeg);
      return value === null ? [] : [{ night: f.night, value }];
    });
  const open = NIGHT_MEASURES.filter((m) => of(m).length > 0);
  const [chosen, setChosen] = useState<NightMeasure | null>(null);
  const measure = open.find((m) => m === chosen) ?? open[0];
  if (!measure) return null;
  return (
    <Section
      title="Over the nights"
      aside={
        <SelectField
          label="Measure"
          value={measure}
          onChange={(e) => setChosen(open.find((m) => m === e.target.value) ?? null)}
        >
          {open.map((m) => (
            <option key={m} value={m}>
              {MEASURE_WORDS[m].name}
            </option>
          ))}
        </SelectField>
      }
    >
      <NightMeasureChart
        {...MEASURE_WORDS[measure]}
        unit={unitName(MEASURE_WORDS[measure].unit)}
        nights={of(measure).map((n) => ({ ...n, value: inUnit(n.value, MEASURE_WORDS[measure].unit) }))}
      />
    </Section>
  );
}

/** How a trouble was cured before. */
function Troubles({ nights, search }: { readonly nights: readonly NightFacts[]; readonly search: string }) {
  const [question, setQuestion] = useState("");
  const found = troublesAbout(nights, question).filter((f) => f.trouble !== "" || f.cure !== "" || question !== "");
  return (
    <Section title="Trouble and cure">
      <Field
        label="Search"
        type="search"
        value={question}
        placeholder="tilt"
        onChange={(e) => setQuestion(e.target.value)}
      />
      <ul className="mt-2" aria-live="polite">
        {found.length === 0 ? (
          <li className="text-soft">{question === "" ? "Nothing written down yet." : "No night tells of that."}</li>
        ) : null}
        {found.slice(0, 20).map((f) => (
          <li key={`${f.placeId} ${f.night} ${f.memberId}`} className="border-rule border-t py-1.5">
            <Link
              to={`/log/nights${search === "" ? "?" : `${search}&`}night=${f.night}&place=${f.placeId}`}
              className="text-note text-soft underline underline-offset-4"
            >
              {shortNight(f.night)} {f.night.slice(0, 4)}
            </Link>
            <p>{f.trouble || f.note}</p>
            {f.cure ? <p className="text-soft">Cure: {f.cure}</p> : null}
          </li>
        ))}
      </ul>
    </Section>
  );
}
