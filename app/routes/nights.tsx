import { Link, useNavigate, useSearchParams } from "react-router";
import { download, fileStem } from "~/components/download";
import { longNight } from "~/components/clock";
import { NightChecklist } from "~/components/NightChecklist";
import { RunSheetView, type SkyEvent } from "~/components/RunSheetView";
import { Button, buttonLook } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Empty } from "~/components/ui/Panel";
import { runSheetToCalendar } from "~/core/formats";
import {
  nightSteps,
  placeSky,
  stretches,
  walkTarget,
  channelSky,
  type NightSteps,
  type TargetNight,
} from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { chooseTonight, nightSheet, projectTonight } from "~/core/plan";
import { apparentVector, nightEvents, type NightEvents } from "~/core/sky";
import { now } from "~/storage/session";
import type { Route } from "./+types/nights";
import { keptSearch, loadChoice } from "./choice";
import { contextOf } from "./project-context";

/** What Sun, Moon and skyline do, in order. */
function skyEvents(events: NightEvents, steps: NightSteps, walk: TargetNight | null): SkyEvent[] {
  const found: SkyEvent[] = [];
  const line = (l: NightEvents["horizon"], down: string, up: string) => {
    if (l.kind !== "passes") return;
    if (l.downMs !== null) found.push({ atMs: l.downMs, words: down });
    if (l.upMs !== null) found.push({ atMs: l.upMs, words: up });
  };
  line(events.horizon, "Sunset", "Sunrise: tube capped before");
  line(events.astronomical, "Dark: Sun below −18°", "Light begins: Sun above −18°");
  const end = steps.startMs + steps.count * steps.stepMin * 60_000;
  const isNight = (ms: number) => ms >= steps.startMs && ms <= end;
  events.moonrises.filter(isNight).forEach((atMs) => found.push({ atMs, words: "Moon rises" }));
  events.moonsets.filter(isNight).forEach((atMs) => found.push({ atMs, words: "Moon sets" }));
  const runs = walk ? stretches(steps, walk) : [];
  runs.forEach((r, i) => {
    if (i === 0) return;
    const before = runs[i - 1]!.cause;
    if (r.cause === "skyline" && before === "none")
      found.push({ atMs: r.startMs, words: "Target goes behind the skyline" });
    if (r.cause === "none" && before === "skyline") found.push({ atMs: r.startMs, words: "Target clears the skyline" });
    if (r.cause === "low" && before === "none")
      found.push({ atMs: r.startMs, words: "Target below the lowest altitude" });
    if (r.cause === "none" && before === "low")
      found.push({ atMs: r.startMs, words: "Target above the lowest altitude" });
  });
  return found;
}

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
  const contexts = library.projects.flatMap((p) => contextOf(library, p.id) ?? []);
  const list = contexts.map((c) => ({ id: c.id, name: c.project.data.name }));
  if (contexts.length === 0) return { list, view: null, night: choice.night };
  const asked = contexts.find((c) => c.id === new URL(request.url).searchParams.get("project"));
  const best = () => {
    if (!choice.place) return undefined;
    const sky = placeSky(choice.place.data, choice.night);
    const steps = nightSteps(sky, 5);
    const verdict = chooseTonight(
      contexts.flatMap(
        (c) =>
          projectTonight(
            { place: choice.place!.data, sky, steps },
            { id: c.id, target: c.layout.centre, needs: c.needs },
          ) ?? [],
      ),
      steps,
    );
    return verdict.kind === "go" ? contexts.find((c) => c.id === verdict.first.id) : undefined;
  };
  const c = asked ?? best() ?? contexts[0]!;
  const place = c.place.data;
  const sky = placeSky(place, choice.night);
  const steps = nightSteps(sky, 2);
  const filterName = (channel: string) => c.filters.find((f) => f.data.channel === channel)?.data.name ?? channel;
  const sheet = nightSheet({
    place,
    sky,
    date: choice.night,
    panels: c.panels,
    centre: c.layout.centre,
    needs: c.needs,
    rules: c.rules,
    flips: c.rig.data.flipsAtMeridian,
    filterName,
  });
  const channel = c.needs.find((n) => n.remainingMin > 0.5)?.channel;
  const walk = channel
    ? walkTarget(steps, channelSky(place, steps, channel), apparentVector(sky, c.layout.centre))
    : null;
  return {
    list,
    night: choice.night,
    view: {
      id: c.id,
      name: c.project.data.name,
      place,
      rig: c.rig.data,
      sheet,
      events: skyEvents(nightEvents(sky), steps, walk),
      isDone: channel === undefined,
      channels: [...new Set(sheet.lines.flatMap((l) => (l.kind === "block" ? [l.channel] : [])))],
    },
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Run sheet · Zenithar" }];

export default function NightsRoute({ loaderData }: Route.ComponentProps) {
  const { list, view, night } = loaderData;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const search = keptSearch(params);
  if (!view)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Run sheet</h1>
        <p className="my-3">A run sheet needs a project: a target with its frame and hours.</p>
        <Link to={`/targets${search}`} className={buttonLook("main")}>
          Choose a target
        </Link>
      </Empty>
    );
  const { sheet, place } = view;
  const hasBlocks = sheet.lines.some((l) => l.kind === "block");
  const calendar = () =>
    download(
      `${fileStem(view.name)}-${night}.ics`,
      runSheetToCalendar(sheet, {
        title: view.name,
        place: place.name,
        uidBase: `${view.id}-${night}`,
        stampMs: now(),
      }),
      "text/calendar",
    );
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem] print:block">
      <div>
        <p className="text-note text-soft">
          {longNight(night)}, {place.name} · local time, {place.timeZone}
        </p>
        <h1 className="text-headline">{view.name}</h1>
        <p className="text-soft mt-1">
          {hasBlocks
            ? `${formatMinutes(sheet.exposureMin)} of exposure with ${view.rig.name}, clear sky assumed.`
            : view.isDone
              ? "Every goal of this project is met: nothing to do."
              : "Nothing usable for this project on this night. Choose another night above."}
          {sheet.leftOver.length > 0 && hasBlocks
            ? ` ${formatMinutes(sheet.leftOver.reduce((s, l) => s + l.exposureMin, 0))} of the wanted exposure do not fit.`
            : ""}
        </p>
        <div className="mt-4">
          <RunSheetView sheet={sheet} sky={view.events} zone={place.timeZone} />
        </div>
      </div>
      <aside className="space-y-5 print:mt-6">
        <div className="no-print">
          <SelectField
            label="Run sheet for"
            value={view.id}
            onChange={(e) =>
              void navigate(
                `/nights?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), project: e.target.value }).toString()}`,
              )
            }
          >
            {list.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </SelectField>
        </div>
        <NightChecklist rig={view.rig} channels={view.channels} />
        <div className="no-print flex gap-2">
          <Button look="main" onClick={() => window.print()} className="flex-1">
            Print
          </Button>
          <Button onClick={calendar} disabled={!hasBlocks}>
            To my calendar
          </Button>
        </div>
      </aside>
    </div>
  );
}
