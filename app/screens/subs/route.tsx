import { deskOf, useDesk } from "~/at-desk";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { longNight, shortNight } from "~/components/clock";
import { FilePick } from "~/components/forms/FilePick";
import { useAct } from "~/components/forms/use-act";
import { counted, fixed } from "~/components/numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { SelectField, TimeField } from "~/components/ui/Field";
import { Empty, Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { CULL_WORDS } from "~/components/words/log-words";
import {
  CULL_REASONS,
  cullPrice,
  keptHistory,
  likeKey,
  measureSummary,
  subsBetween,
  type CullReason,
} from "~/core/ledger";
import { groupBy } from "~/core/numeric";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { subsAction } from "./action";
import { measureFaultWords, priceWords } from "~/components/words/cull-words";
import type { SubsAnswer, SubsIntent } from "./intents";
import { loadSubs, type SubsView } from "./load";
import { timesOf } from "./times";
import { OwnLimits } from "./OwnLimits";
import { SubsTable } from "./SubsTable";
import { useSelection } from "./use-selection";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadSubs(deskOf(context), request);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => subsAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Subs · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function SubsRoute({ loaderData: view }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  const { projectId } = view;
  return (
    <div>
      <p className="text-note text-soft">
        <Link
          to={projectId ? `/projects/${projectId}/log${search}` : `/log${search}`}
          className="underline underline-offset-4"
        >
          {projectId ? (view.projects[projectId] ?? "Log") : "Log"}
        </Link>
      </p>
      <h1 className="text-headline">Subs of {longNight(view.night)}</h1>
      {view.subs.length === 0 ? (
        <Empty>
          <p>
            No single subs of yours are logged for this night
            {view.lumped > 0
              ? `: its ${counted(view.lumped, "sub")} were entered together, and cannot be told apart`
              : ""}
            .
          </p>
          {view.others.length > 0 ? (
            <p className="mt-2">
              Nights with files:{" "}
              {view.others.map((n, i) => (
                <span key={n}>
                  {i > 0 ? ", " : ""}
                  <Link className="underline underline-offset-4" to={nightLink(params, n)}>
                    {shortNight(n)}
                  </Link>
                </span>
              ))}
            </p>
          ) : null}
        </Empty>
      ) : (
        <Subs key={`${view.night} ${projectId ?? ""}`} view={view} />
      )}
    </div>
  );
}

const nightLink = (params: URLSearchParams, night: string): string => {
  const next = new URLSearchParams(params);
  next.set("night", night);
  return `/log/subs?${next.toString()}`;
};

function Subs({ view }: { readonly view: SubsView }) {
  const desk = useDesk();
  const { subs, hints, zone, night } = view;
  const selection = useSelection(subs.map((s) => s.id));
  const { act, answer, refusal, isBusy } = useAct<SubsIntent, SubsAnswer>();
  const [reason, setReason] = useState<CullReason>("cloud");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const { chosen } = selection;
  const byId = new Map(hints.map((h) => [h.id, h]));
  const kept = subs.filter((s) => s.data.kept > 0);
  const open = hints.filter((h) => kept.some((s) => s.id === h.id));
  const falling = kept.filter((s) => chosen.has(s.id));
  const drop = () => {
    if (falling.length > 0 && !isBusy)
      void act({ act: "cull", night, ids: falling.map((s) => s.id), isKept: false, reason });
  };
  const rising = subs.filter((s) => chosen.has(s.id) && s.data.kept === 0);
  const keepThem = () => {
    if (rising.length > 0 && !isBusy)
      void act({ act: "cull", night, ids: rising.map((s) => s.id), isKept: true, reason });
  };
  const times = timesOf(night, from, to, zone);
  const markBetween = () => {
    if (times.ok) selection.set(subsBetween(subs, times.value.fromMs, times.value.toMs));
  };
  const measured = subs.filter((s) => s.data.measure).length;
  return (
    <>
      <StorageRefusal fault={refusal} />
      <History view={view} />
      <div className="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_18rem]">
        <div className="min-w-0">
          <SubsTable
            subs={subs}
            hints={byId}
            scales={view.scales}
            zone={zone}
            selection={selection}
            onDrop={drop}
            onKeep={keepThem}
          />
          <p className="text-note text-faint mt-1">
            Arrows move, Shift takes a range, Space takes one more, Ctrl A all; X drops, K keeps.
          </p>
        </div>
        <aside className="space-y-4">
          <div>
            <p aria-live="polite">
              {chosen.size === 0
                ? "Nothing chosen."
                : `${counted(chosen.size, "sub")} chosen${falling.length > 0 ? `: dropping ${falling.length} costs ${priceWords(cullPrice(kept, new Set(falling.map((s) => s.id))))}.` : "."}`}
            </p>
            <div className="mt-2">
              <SelectField
                label="Why"
                value={reason}
                onChange={(e) => setReason(CULL_REASONS.find((r) => r === e.target.value) ?? reason)}
              >
                {CULL_REASONS.map((r) => (
                  <option key={r} value={r}>
                    {CULL_WORDS[r]}
                  </option>
                ))}
              </SelectField>
            </div>
            <div className="mt-2 flex flex-wrap gap-2">
              <Button look="main" disabled={falling.length === 0 || isBusy} onClick={drop}>
                Drop {falling.length > 0 ? falling.length : ""}
              </Button>
              <Button disabled={rising.length === 0 || isBusy} onClick={keepThem}>
                Keep {rising.length > 0 ? rising.length : ""}
              </Button>
            </div>
          </div>
          <form
            onSubmit={(e) => {
              e.preventDefault();
              markBetween();
            }}
          >
            <p className="text-note text-soft">Choose by the clock</p>
            <div className="mt-1 grid grid-cols-2 gap-2">
              <TimeField label="From" value={from} onTime={setFrom} />
              <TimeField label="To" value={to} onTime={setTo} />
            </div>
            {times.ok || from === "" || to === "" ? null : <p className="text-note text-rust mt-1">{times.error}</p>}
            <Button type="submit" className="mt-2" disabled={!times.ok}>
              Choose these
            </Button>
          </form>
          <div>
            {open.length > 0 ? (
              <Button onClick={() => selection.set(open.map((h) => h.id))}>
                Choose the {counted(open.length, "sub")} that stand out
              </Button>
            ) : (
              <p className="text-soft">
                {measured === 0
                  ? "Nothing is measured yet: drop the night's FITS files below, or have your camera program write FWHM into them."
                  : "Nothing stands out among its like."}
              </p>
            )}
            <p className="text-note text-soft mt-2">
              <Why title="What stands out">
                <p>
                  Over a limit of your own; or wider, longer or brighter than the others of its panel, channel and
                  length by more than three robust standard deviations, with less than 70 % of their stars, or with
                  stars less than 75 % as bright, which is cloud: common practice. Of ten subs or more. Stars long one
                  way all over the picture were drawn out by the mount, long every way by focus or tilt. The sky also
                  grows brighter towards the horizon and the Moon: that is no fault of a sub. Dropping costs the root of
                  what is kept; weights make wide subs cost less than that.
                </p>
              </Why>
            </p>
          </div>
          {view.rigs.map((rig) => (
            <OwnLimits
              key={`${rig.id} ${JSON.stringify(rig.limits)}`}
              rigName={rig.name}
              limits={rig.limits}
              scale={view.scales[rig.id] ?? 0}
              isBusy={isBusy}
              onSave={(limits) => void act({ act: "limits", rigId: rig.id, limits })}
            />
          ))}
        </aside>
      </div>
      <Section title="Measure them here" aside={`${measured} of ${counted(subs.length, "sub")} measured`}>
        <FilePick
          label="FITS files to measure"
          words="Choose FITS files"
          isMany
          busy={(share, count) => `Measuring, ${Math.round((share ?? 0) * count)} of ${count} …`}
          onFiles={async (files, signal, onProgress) => {
            const found = await desk.workers.files.measure(files, signal, (done) => onProgress(done / files.length));
            await act({ act: "measured", files: found });
          }}
        >
          <p className="text-soft max-w-[60ch]">
            Drop the night&apos;s FITS files: width, shape and number of stars and the sky are measured on nine windows
            of each picture, and written to the sub it is. Stars burnt out, crowded or odd are left out; wide wings read
            9 to 16 % wider; counts compare subs of one rig only.
          </p>
        </FilePick>
        {answer?.report ? <MeasureWords report={answer.report} /> : null}
      </Section>
    </>
  );
}

function MeasureWords({ report }: { readonly report: NonNullable<SubsAnswer["report"]> }) {
  const { measured, unknown, refused } = report;
  return (
    <div role="status" className="mt-2">
      <p>
        {counted(measured, "sub")} measured.
        {unknown.length > 0
          ? ` ${counted(unknown.length, "file")} not in the log yet: add them there first (${unknown.slice(0, 3).join(", ")}${unknown.length > 3 ? " …" : ""}).`
          : ""}
      </p>
      {refused.length > 0 ? (
        <ul className="text-note text-soft">
          {refused.slice(0, 20).map((r) => (
            <li key={r.name}>
              {r.name}: {measureFaultWords(r.code)}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

/** What was kept after each look, set by set: 15, then 11, then 7. */
function History({ view }: { readonly view: SubsView }) {
  const groups = [...groupBy(view.subs, (s) => likeKey(s.data)).values()];
  return (
    <ul className="mt-1">
      {groups.map((group) => {
        const { projectId, panel, channel, exposureSec } = group[0]!.data;
        const states = keptHistory(group.map((s) => s.data));
        const width = measureSummary(group, "fwhmPx");
        const scale = view.scales[group[0]!.data.rigId] ?? 0;
        const counts = states[0]!.kept === group.length ? states : [{ untilMs: null, kept: group.length }, ...states];
        return (
          <li key={likeKey(group[0]!.data)} className="text-soft">
            {view.projectId ? "" : `${view.projects[projectId] ?? "a deleted project"}: `}
            <span className="text-ink font-semibold">
              {panel} {channel}
            </span>{" "}
            × {exposureSec} s: {counts.map((s) => s.kept).join(" → ")}
            {counts.length > 1 ? " kept" : counts[0]!.kept === 1 ? " taken" : " taken, all kept"}
            {width
              ? `; stars ${fixed(width.median * scale, 1)}″ wide, the best tenth ${fixed(width.best * scale, 1)}″`
              : ""}
          </li>
        );
      })}
    </ul>
  );
}
