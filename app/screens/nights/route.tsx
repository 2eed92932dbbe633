import { FirstStepPage } from "~/components/FirstStep";
import { deskOf, useDesk } from "~/at-desk";
import { Freed } from "./Freed";
import type { CSSProperties } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { download, fileStem } from "~/components/download";
import { clockTime, longNight } from "~/components/clock";
import { freeWords } from "~/components/words/evening-words";
import { NightChecklist } from "./NightChecklist";
import { batteryLine, PowerPanel } from "./PowerPanel";
import { RunSheetView } from "./RunSheetView";
import { paperPx, sheetLines } from "./sheet-lines";
import { Button, buttonLook } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { cautionWords } from "~/components/words/caution-words";
import { CalibrationPanel } from "./CalibrationPanel";
import { ClearHours } from "./ClearHours";
import { runSheetToCalendar } from "~/core/formats";
import { counted, percent } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { libraryHere } from "~/desk/records/open-library";
import { loadNight } from "./load";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadNight(deskOf(context), request);
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Run sheet · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

const LEFT_OVER_TOLD_MIN = 10; // less is the rounding to whole subs

export default function NightsRoute({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { list, view, night, firstStep } = loaderData;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const search = keptSearch(params);
  if (firstStep)
    return (
      <FirstStepPage title="Run sheet" step={firstStep} search={search}>
        What to do in a night, by the clock, for a project: a target with its frame and hours.
      </FirstStepPage>
    );
  if (!view || view.kind === "free")
    return (
      <div>
        <p className="text-note text-soft">
          {longNight(night)}
          {view ? `, ${view.place.name}` : ""}
        </p>
        <h1 className="text-headline">Nothing planned</h1>
        <p className="text-soft mt-1 max-w-[64ch]">{freeWords(view?.why ?? null, view?.others ?? "")}</p>
        <p className="mt-4">
          <Link to={`/season${search}`} className="underline underline-offset-4">
            See the season, and fix or free nights there
          </Link>
        </p>
      </div>
    );
  const { sheet, place } = view;
  const leftOverMin = sheet.leftOver.reduce((s, l) => s + l.exposureMin, 0);
  const hasBlocks = sheet.lines.some((l) => l.kind === "block");
  const rehearsal = `/nights/rehearsal?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), of: "sheet" }).toString()}`;
  const liveSearch = `?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), with: view.rigId }).toString()}`;
  const calendar = () =>
    download(
      `${fileStem(view.title)}-${night}.ics`,
      runSheetToCalendar(sheet, {
        titleOf: (projectId) => view.names[projectId] ?? view.title,
        place: place.name,
        uidBase: `${view.calendarId}-${night}`,
        stampMs: desk.now(),
      }),
      "text/calendar",
    );
  const file = async (kind: "json" | "table") => {
    const { nightFiles } = await import("~/desk/plan/night-file");
    const files = await nightFiles(await libraryHere(desk), { night, place, sheet });
    if (files) download(files[kind].name, files[kind].text, kind === "json" ? "application/json" : "text/csv");
  };
  return (
    <div
      className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem] print:block print:text-(length:--paper)"
      style={{ "--paper": `${paperPx(sheetLines(sheet, view.events))}px` } as CSSProperties}
    >
      <div>
        <p className="text-note text-soft">
          {longNight(night)}, {place.name} · local time, {place.timeZone}
        </p>
        <h1 className="text-headline print:text-[17px] print:leading-[1.2]">{view.title}</h1>
        <p className="text-soft mt-1 print:mt-0">
          {hasBlocks
            ? `${formatMinutes(sheet.exposureMin)} of exposure with ${view.rig.name}, ${view.clear ? "in the stretch that is clear" : "clear sky assumed"}.`
            : "Nothing of it lies in that stretch. Choose other hours, or another night above."}
          {leftOverMin > LEFT_OVER_TOLD_MIN && hasBlocks
            ? ` ${formatMinutes(leftOverMin)} of the wanted exposure do not fit.`
            : ""}
        </p>
        {view.freed ? <Freed freed={view.freed} zone={place.timeZone} search={search} /> : null}
        {view.begunMs !== null ? (
          <p className="text-lamp mt-1">
            Begun at {clockTime(view.begunMs, place.timeZone)}: what has been stays as it was; a cloudy look or what you
            write down lays the rest out anew.
          </p>
        ) : null}
        <div className="mt-4 print:mt-1">
          <RunSheetView
            sheet={sheet}
            sky={view.events}
            zone={place.timeZone}
            nowMs={view.isTonight ? view.nowMs : null}
            isCooled={view.rig.isCooled}
            focus={view.focus}
            nameOf={(id) => (Object.keys(view.names).length > 1 ? (view.names[id] ?? null) : null)}
          />
        </div>
      </div>
      <aside className="space-y-5 print:mt-1.5 print:columns-2 print:gap-8 print:space-y-1 print:leading-[1.2]">
        {list.length > 1 ? (
          <div className="no-print">
            <SelectField
              label="Run sheet for"
              value={view.rigId}
              onChange={(e) =>
                void navigate(
                  `/nights?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), with: e.target.value }).toString()}`,
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
        ) : null}
        {view.cautions.length > 0 ? (
          <Panel
            title="Before you go out"
            className="print:break-inside-avoid print:border-0 print:p-0"
            {...(view.isSimulated ? { aside: "simulated weather" } : {})}
          >
            <ul className="space-y-1">
              {view.cautions.map((c) => (
                <li key={c.code}>{cautionWords(c, place.timeZone)}</li>
              ))}
            </ul>
          </Panel>
        ) : null}
        {view.dithers ? (
          <Panel title="Two rigs at once" className="print:break-inside-avoid print:border-0 print:p-0">
            <p>
              Start together, and dither after {counted(view.dithers.subsA, "sub")} of {view.dithers.subSecA} s here and{" "}
              {counted(view.dithers.subsB, "sub")} of {view.dithers.subSecB} s with {view.dithers.other}:{" "}
              {view.dithers.waste < 0.005 ? "nothing" : percent(view.dithers.waste)} is waited, and no sub is spoilt by
              the other&apos;s move.
            </p>
          </Panel>
        ) : null}
        <ClearHours clear={view.clear} forecast={view.clearHours} zone={place.timeZone} />
        <CalibrationPanel calibration={view.calibration} zone={place.timeZone} isCooled={view.rig.isCooled} />
        {view.power ? <PowerPanel {...view.power} zone={place.timeZone} isCooled={view.rig.isCooled} /> : null}
        <NightChecklist
          key={`${night} ${view.rigId}`}
          rig={view.rig}
          rigId={view.rigId}
          night={night}
          checks={view.checks}
          done={view.done}
          search={search}
          needs={view.calibration.needs}
          battery={view.power ? batteryLine(view.power, place.timeZone) : null}
        />
        {view.isTonight && hasBlocks ? (
          <Link to={`/nights/live${liveSearch}`} className={buttonLook("main", "no-print w-full")}>
            Live, beside the mount
          </Link>
        ) : null}
        {hasBlocks ? (
          <Link to={rehearsal} className={buttonLook("quiet", "no-print w-full")}>
            Rehearse this night
          </Link>
        ) : null}
        {hasBlocks ? (
          <p className="no-print text-note text-soft flex flex-wrap items-baseline gap-x-2">
            For other programs:
            <Button look="plain" onClick={() => void file("json")}>
              as JSON
            </Button>
            <Button look="plain" onClick={() => void file("table")}>
              as a table
            </Button>
          </p>
        ) : null}
        <div className="no-print flex gap-2">
          <Button onClick={() => window.print()} className="flex-1">
            Print
          </Button>
          <Button onClick={calendar} disabled={!hasBlocks}>
            To my calendar
          </Button>
          <Link to={`/log${search}`} className={buttonLook("quiet")}>
            Log this
          </Link>
        </div>
      </aside>
    </div>
  );
}
