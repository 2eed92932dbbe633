import { deskOf, useDesk } from "~/at-desk";
import { useState } from "react";
import { CoverageMap } from "./CoverageMap";
import { CrewTable } from "./CrewTable";
import { HandOver } from "./HandOver";
import { JointCalendar } from "./JointCalendar";
import { LastChanges } from "./LastChanges";
import { WeightTable } from "./WeightTable";
import { WhoShoots } from "./WhoShoots";
import { FilePreview } from "~/components/FilePreview";
import { download, fileStem } from "~/components/download";
import { BundleDrop } from "~/components/forms/BundleDrop";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Panel, Section } from "~/components/ui/Panel";
import { memberTotals } from "~/core/crew";
import { panelName } from "~/core/framing";
import { formatMinutes } from "~/core/notation";
import { hoursOfAll } from "~/core/plan";
import { choiceOf } from "~/desk/sky/choice";
import { coverageOf } from "~/desk/projects/coverage";
import { handOverOf } from "~/desk/projects/hand-over";
import { jointRows, toldEvenings } from "~/desk/plan/joint";
import { weightsOf } from "~/desk/projects/equivalence";
import { lastWritten } from "~/desk/records/last-written";
import { libraryHere } from "~/desk/records/open-library";
import { hasUnequalKit, meOf, participantsOf } from "~/desk/records/parts";
import { requireContext } from "~/desk/projects/project";
import { lookInto, readBundle, type FileView } from "~/desk/records/file-view";
import { changeKey } from "~/desk/records/named-records";
import { writeInvitation, writeProject } from "~/desk/records/written";
import { promisedBy, sharingOf } from "~/desk/projects/who-shoots";
import type { Route } from "./+types/route";
import { crewAction } from "./action";
import type { CrewIntent } from "./intents";

export async function clientLoader({ context, params, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const c = requireContext(library, params.projectId);
  const { today, place } = choiceOf(library, new URL(request.url).searchParams);
  const joint = jointRows(library, c, today, request.signal);
  joint.catch(() => undefined); // an aborted one is nobody's fault; the screen that asked is gone
  return {
    projectId: c.id,
    name: c.project.data.name,
    totals: memberTotals(c.byLight),
    /** Whose hours: asked once, where kits or skies differ and nobody has said. */
    asksHours: c.project.data.hours === undefined && hasUnequalKit(library, c.id),
    together: {
      keptMin: c.byLight.reduce((sum, e) => sum + (e.kept * e.exposureSec) / 60, 0),
      lightMin: c.byLight.reduce((sum, e) => sum + e.countedMin, 0),
    },
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    goals: c.goal.data.channels.map((g) => ({
      channel: g.channel,
      goalMin:
        hoursOfAll(
          g,
          c.panels.map((p) => panelName(p.number)),
        ) * 60,
    })),
    joint,
    coverage: coverageOf(library, c, request.signal),
    sharing: sharingOf(library, c, today, request.signal),
    promised: promisedBy(library, c),
    told: toldEvenings(library, c.id),
    measuredBy: c.reference.memberId,
    handOver: handOverOf(library, c),
    zone: place?.data.timeZone ?? "Etc/UTC",
    weights: weightsOf(library, c),
    written: lastWritten(library, c.id).slice(0, 12),
    here: `${c.reference.rig.data.name}, ${c.reference.place.data.name}`,
    participants: participantsOf(library, c.id),
    me: meOf(library),
    isDemo: desk.isDemo,
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => crewAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Crew · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function CrewRoute({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { projectId, name, totals, members, goals, participants, me } = loaderData;
  const { act, refusal, isBusy } = useAct<CrewIntent>();
  const [view, setView] = useState<FileView | null>(null);
  const invite = async () => {
    const file = await writeInvitation(desk, projectId, fileStem(name));
    download(file.name, file.text, "application/json");
  };
  const share = async () => {
    const file = await writeProject(desk, projectId, fileStem(name));
    download(file.name, file.text, "application/json");
  };
  const join = async (how: Omit<Extract<CrewIntent, { readonly act: "join" }>, "act">) => {
    await act({ act: "join", ...how });
    setView(null);
  };
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="min-w-0">
        <StorageRefusal fault={refusal} />
        {loaderData.asksHours ? (
          <div className="border-lamp mb-4 border-l-2 pl-3">
            <p className="font-semibold">Members shoot with other kit or under another sky than yours.</p>
            <p className="text-soft max-w-[64ch]">
              As kept, an hour of anybody fills an hour of the goal: {formatMinutes(loaderData.together.keptMin)} so
              far. By light, each counts what it is at the reference with the target at its best:{" "}
              {formatMinutes(loaderData.together.lightMin)}. It can be changed under Change above.
            </p>
            <div className="mt-2 flex flex-wrap gap-2">
              {(["kept", "light"] as const).map((hours) => (
                <Button
                  key={hours}
                  onClick={() => void act({ act: "hours", projectId, rev: loaderData.sharing.rev, hours })}
                >
                  {hours === "kept" ? "Count as kept" : "Count by light"}
                </Button>
              ))}
            </div>
          </div>
        ) : null}
        <Section title="What have we together?" aside="kept hours, and what they count at the reference">
          <div className="overflow-x-auto">
            <CrewTable totals={totals} members={members} goals={goals} />
          </div>
        </Section>
        <WeightTable
          weights={loaderData.weights}
          members={members}
          here={loaderData.here}
          measurers={participants
            .filter((p) => p.isSaid)
            .map((p) => ({ memberId: p.memberId, words: `${p.name}: ${p.rigName}, ${p.placeName}` }))}
          measuredBy={loaderData.measuredBy}
          isBusy={isBusy}
          onMeasure={(memberId) => void act({ act: "measure", projectId, rev: loaderData.sharing.rev, memberId })}
        />
        <CoverageMap view={loaderData.coverage} members={members} name={name} here={loaderData.here} />
        <Section title="Who takes part" aside="everyone sets their own part, under Change above">
          <ul className="mt-1">
            {participants.map((p) => (
              <li key={p.memberId} className="border-rule flex flex-wrap gap-x-4 border-t py-2">
                <span className="min-w-24 font-semibold">
                  {p.name}
                  {p.memberId === me ? " (you)" : ""}
                </span>
                <span className="text-soft min-w-0 flex-1">
                  {p.rigName}, {p.placeName}
                  {p.isSaid ? "" : " (by their log; their file does not say)"}
                </span>
                <span>{p.channels ? p.channels.join(", ") : p.isSaid ? "all channels" : ""}</span>
              </li>
            ))}
          </ul>
        </Section>
        <WhoShoots
          projectId={projectId}
          view={loaderData.sharing}
          members={members}
          me={me}
          promised={loaderData.promised}
          isBusy={isBusy}
          onKeep={(rev, rules) => void act({ act: "sharing", projectId, rev, rules })}
          onPromise={(channels) => void act({ act: "promise", projectId, channels })}
        />
        <JointCalendar
          told={loaderData.told}
          isBusy={isBusy}
          onTell={(tells) => void act({ act: "evenings", projectId, tells })}
          rows={loaderData.joint}
          members={members}
          zone={loaderData.zone}
        />
        <LastChanges written={loaderData.written} members={members} zone={loaderData.zone} />
        {view ? (
          <FilePreview
            view={view}
            members={members}
            keyOf={changeKey}
            canBeMine={false}
            {...(view.bundle.records.some((r) => r.kind === "project" && r.id === projectId)
              ? {}
              : { note: "It is about another project, which it will add." })}
            onJoin={({ letsAheadIn, chosen }) => void join({ handle: view.handle, letsAheadIn, chosen })}
            onLeave={() => setView(null)}
          />
        ) : null}
      </div>
      <aside className="space-y-4">
        <Panel title="Export">
          <p className="text-soft mb-3">
            One file with this project: its frame, goals, everyone&apos;s hours and the kit they came from. Whoever
            imports it loses nothing and doubles nothing.
          </p>
          <div className="flex flex-wrap gap-2">
            <Button look="main" onClick={() => void share()}>
              Export this project
            </Button>
            <Button onClick={() => void invite()}>Invite somebody</Button>
          </div>
          <p className="text-note text-soft mt-2">An invitation is the same without the hours: small enough to mail.</p>
        </Panel>
        <Panel title="Import">
          <p className="text-soft mb-3">A friend&apos;s file. You see what it brings before it is merged.</p>
          <BundleDrop
            words="Import a friend's file"
            read={(file: Blob, signal: AbortSignal) => readBundle(desk, file, signal)}
            onBundle={async (bundle, fileName, signal) =>
              setView(await lookInto(await libraryHere(desk), bundle, fileName, signal))
            }
          />
          {loaderData.isDemo ? (
            <p className="text-note text-soft mt-3">
              To try it:{" "}
              <a
                href={`${import.meta.env.BASE_URL}demo/from-wren.zenithar.json`}
                download
                className="underline underline-offset-4"
              >
                the file Wren sent
              </a>
              .
            </p>
          ) : null}
        </Panel>
        <HandOver
          name={name}
          terms={loaderData.handOver.terms}
          items={loaderData.handOver.items}
          isBusy={isBusy}
          onChange={(terms) => void act({ act: "handOver", projectId, rev: loaderData.handOver.rev, terms })}
        />
      </aside>
    </div>
  );
}
