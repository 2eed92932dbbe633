import { Link, useSearchParams } from "react-router";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { TonightFacts } from "~/components/TonightFacts";
import { TonightVerdict } from "~/components/TonightVerdict";
import { TonightStrips } from "~/components/TonightStrips";
import { buttonLook } from "~/components/ui/Button";
import { Empty, Panel } from "~/components/ui/Panel";
import { longNight } from "~/components/clock";
import { efficiencyOf } from "~/core/exposure";
import { accountOf, nightSteps, placeSky } from "~/core/night";
import { chooseTonight, projectTonight, type TonightProject } from "~/core/plan";
import { nightEvents } from "~/core/sky";
import { monthOf } from "~/core/time";
import type { Route } from "./+types/tonight";
import { keptSearch, loadChoice } from "./choice";
import { contextOf } from "./project-context";

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
  if (!choice.place) return null;
  const place = choice.place.data;
  const sky = placeSky(place, choice.night);
  const steps = nightSteps(sky, 5);
  const contexts = library.projects.flatMap((p) => contextOf(library, p.id) ?? []);
  const tonight = contexts.flatMap((c): (TonightProject & { readonly name: string })[] => {
    const t = projectTonight({ place, sky, steps }, { id: c.id, target: c.layout.centre, needs: c.needs });
    return t ? [{ ...t, name: c.project.data.name }] : [];
  });
  const verdict = chooseTonight(tonight, steps);
  const lead = verdict.kind === "go" ? contexts.find((c) => c.id === verdict.first.id) : undefined;
  const subSec =
    lead?.goal.data.channels.find((g) => verdict.kind === "go" && g.channel === verdict.first.channel)?.subSec ?? 120;
  const overheads = lead?.rig.data.overheads;
  return {
    place,
    night: choice.night,
    isToday: choice.night === choice.today,
    steps,
    tonight,
    verdict,
    events: nightEvents(sky),
    illuminatedFraction: sky.illuminatedFraction,
    clearChance: place.clearChance[monthOf(choice.night) - 1] ?? 0.4,
    account: verdict.kind === "go" ? accountOf(steps, verdict.first.walk) : null,
    overheadMin:
      verdict.kind === "go" && overheads
        ? verdict.first.usableMin * (1 - efficiencyOf(subSec, overheads)) + overheads.flipMin
        : 0,
    hasProjects: contexts.length > 0,
    openProjects: tonight.length,
    lastBackupMs: library.settings?.data.lastBackupMs ?? null,
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Tonight · Zenithar" }];

export default function TonightRoute({ loaderData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (!loaderData)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Where do you observe from?</h1>
        <p className="my-3">
          Enter your place, with its real skyline, and a rig. Then every night ahead can be judged for your targets.
        </p>
        <Link to="/kit/places/new" className={buttonLook("main")}>
          Add a place
        </Link>{" "}
        <Link to="/kit/data" className={buttonLook("plain")}>
          Bring data from a file, or look around with the demo group
        </Link>
      </Empty>
    );
  const { place, night, verdict, tonight, steps, account } = loaderData;
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div>
        <p className="text-note text-soft">
          {longNight(night)}, {place.name} · {Math.abs(place.latitudeDeg).toFixed(2)}°{" "}
          {place.latitudeDeg < 0 ? "S" : "N"} · {place.skyMagPerArcsec2.toFixed(1)} mag/arcsec²
        </p>
        <TonightVerdict
          verdict={verdict}
          names={new Map(tonight.map((t) => [t.id, t.name]))}
          steps={steps}
          zone={place.timeZone}
          hasProjects={loaderData.hasProjects}
          clearChance={loaderData.clearChance}
        />
        {steps.count > 0 && tonight.length > 0 ? (
          <TonightStrips
            tonight={tonight}
            steps={steps}
            zone={place.timeZone}
            search={search}
            startMs={verdict.kind === "go" ? verdict.startMs : null}
          />
        ) : null}
      </div>
      <aside className="space-y-4">
        {account ? (
          <Panel
            title="Where the night goes"
            aside={verdict.kind === "go" ? `${verdict.first.channel}, first target` : undefined}
          >
            <NightAccountChart account={account} overheadMin={loaderData.overheadMin} />
          </Panel>
        ) : null}
        <TonightFacts
          events={loaderData.events}
          illuminatedFraction={loaderData.illuminatedFraction}
          clearChance={loaderData.clearChance}
          zone={place.timeZone}
          night={night}
        />
        <div className="flex gap-2">
          {verdict.kind === "go" ? (
            <Link
              to={`/nights${search === "" ? "?" : `${search}&`}project=${verdict.first.id}`}
              className={buttonLook("main", "flex-1")}
            >
              Open the run sheet
            </Link>
          ) : (
            <Link to={`/targets${search}`} className={buttonLook("main", "flex-1")}>
              Look for a target
            </Link>
          )}
        </div>
      </aside>
    </div>
  );
}
