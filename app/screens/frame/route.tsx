import { deskOf } from "~/at-desk";
import { useCallback, useMemo, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { Copies } from "~/components/Copies";
import { positionWords, thingAt, type ChartThing } from "./chart-facts";
import { ChartTools, type ChartLook } from "./ChartTools";
import { FrameChoice } from "./FrameChoice";
import { SkyChart, type Gaze } from "~/components/sky-chart/SkyChart";
import { faintestAt } from "~/drawing";
import { StorageRefusal } from "~/components/StorageRefusal";
import { fileStem } from "~/components/download";
import type { FitsWcs } from "~/core/formats";
import { cropCorners, frameCorners, mosaicExtent, opticsOf, type MosaicLayout, type Optics } from "~/core/framing";
import { frameChange, layoutOf, panelLabel, panelsOf, type FrameData } from "~/core/plan";
import type { Equatorial } from "~/core/sky";
import { wrap360 } from "~/core/units";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { FrameLeaves } from "./FrameLeaves";
import { frameAction } from "./action";
import type { FrameAnswer, FrameIntent } from "./intents";
import { loadFrame, type FrameView } from "./load";
import { MovedQuestion } from "./MovedQuestion";
import { PanelsOnPaper } from "./PanelsOnPaper";
import { useChartData } from "./use-chart-data";
import { useAct } from "~/components/forms/use-act";
import { useFrameDraft } from "./use-frame-draft";
import { useFrameStars } from "./use-frame-stars";
import { useLineTurn } from "./use-line-turn";
import { useOutlines } from "./use-outlines";
import { SurveyCredit, SurveyTools } from "./SurveyTools";
import { useSurvey } from "./use-survey";
import { useUnderlay } from "./use-underlay";

const SEAM_LIMIT = 8.5;

export const clientLoader = ({ context, request, params }: Route.ClientLoaderArgs) =>
  loadFrame(deskOf(context), request, params.projectId);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => frameAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Frame · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function FrameRoute({ loaderData, params }: Route.ComponentProps) {
  return <FramePage key={loaderData.frame.id} view={loaderData} action={`/projects/${params.projectId}/frame`} />;
}

function FramePage({ view, action }: { readonly view: FrameView; readonly action: string }) {
  const { frame: kept, optics, title, target } = view;
  const { id: frameId, data: frameData } = kept;
  const { stock, taken } = view;
  const changeTo = useCallback(
    (next: FrameData) => frameChange({ id: frameId, data: frameData }, next, stock, optics, taken),
    [frameId, frameData, stock, optics, taken],
  );
  const asks = useCallback((next: FrameData) => changeTo(next).moves.length > 0, [changeTo]);
  const {
    frame,
    isHeld,
    putBack,
    change,
    begin,
    commit,
    undo,
    redo,
    canUndo,
    canRedo,
    status,
    refusal: saving,
  } = useFrameDraft(kept, view.held, action, asks);
  const picture = useUnderlay(kept.id, view.picture, action);
  const survey = useSurvey();
  const chart = useRef<HTMLDivElement>(null);
  const [gaze, setGaze] = useState<Gaze>(() => gazeOn(kept.data, optics, usualShape()));
  const [look, setLook] = useState<ChartLook>({ up: "north", isMirrored: false });
  const [limit, setLimit] = useState(SEAM_LIMIT);
  const [fields, setFields] = useState<readonly string[]>([]);
  const [under, setUnder] = useState("");
  const [nearId, setNearId] = useState("");
  const [pressed, setPressed] = useState<ChartThing | null>(null);
  const [seen, setSeen] = useState<FitsWcs | null>(null);
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const { sky, objects, fault: chartFault, again } = useChartData(gaze);
  const { act, refusal: actRefusal, isBusy } = useAct<FrameIntent, FrameAnswer>();
  const move = async (counts: boolean) => {
    await act({ act: "move", projectId: view.project.id, frameId, change: { data: frame, counts } });
    void navigate(keptSearch(params), { preventScrollReset: true });
  };

  const layout = useMemo(() => layoutOf(frame, optics), [frame, optics]);
  const line = useLineTurn(layout, (positionAngleDeg) => change({ positionAngleDeg }));
  const panels = useMemo(() => panelsOf(frame, optics), [frame, optics]);
  const labelOf = useMemo(() => (number: number) => panelLabel(frame, number), [frame]);
  const { near, seams, seamStars } = useFrameStars(sky, layout, panels.length, limit);
  const outlines = useOutlines({ frame, layout, panels, objects, target, change });
  const drawn = useMemo(
    () => [
      ...outlines.drawn,
      ...(seen ? [{ name: "the exposure", corners: seen.corners.map((c) => [c.raDeg, c.decDeg] as const) }] : []),
      ...fieldsOf(view.kits, fields, layout),
      ...(frame.crop ? [{ name: "the picture", corners: inTurn(cropCorners(layout, frame.crop)) }] : []),
    ],
    [outlines.drawn, seen, layout, frame.crop, view.kits, fields],
  );
  const chosenId = pressed?.entry?.id ?? "";
  const targetId = target?.id ?? "";
  const outlined = useMemo(() => [targetId, chosenId, nearId].filter((id) => id !== ""), [targetId, chosenId, nearId]);
  const savePicture = () =>
    chart.current?.querySelector("canvas")?.toBlob((blob) => {
      if (!blob) return;
      const link = document.createElement("a");
      link.href = URL.createObjectURL(blob);
      link.download = `${fileStem(title)}-frame.png`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    });
  const refusal = saving ?? picture.refusal;
  const search = keptSearch(params);
  const charted = { objects, sky, faintest: faintestAt(gaze.heightDeg) };
  return (
    <>
      <div className="grid grid-cols-1 gap-4 lg:grid-cols-[minmax(0,1fr)_25.5rem]">
        <div className="min-w-0">
          <div
            ref={chart}
            className="border-rule relative h-[clamp(22rem,calc(100vh-21.5rem),72rem)] overflow-hidden rounded-[8px] border print:h-[120mm]"
          >
            <SkyChart
              gaze={gaze}
              onGaze={setGaze}
              data={sky}
              objects={objects}
              outlined={outlined}
              layout={layout}
              panels={panels}
              seamStars={seamStars}
              labelOf={labelOf}
              outlines={drawn}
              draft={outlines.draft ?? line.drawn}
              underlay={picture.underlay}
              backdrop={survey.backdrop}
              onView={survey.onView}
              onCorner={outlines.corner}
              onLine={outlines.draft ? undefined : line.onLine}
              {...look}
              onGrip={begin}
              onLetGo={commit}
              onMove={(c) => change({ raDeg: c.raDeg, decDeg: c.decDeg })}
              onTurn={(pa) => change({ positionAngleDeg: wrap360(pa) })}
              onMovePanel={(number, xArcmin, yArcmin) => {
                const i = number - frame.columns * frame.rows - 1;
                change({ extra: (frame.extra ?? []).map((e, k) => (k === i ? { xArcmin, yArcmin } : e)) });
              }}
              onHover={(at, reach) => {
                const thing = at ? thingAt(at, reach, charted) : null;
                setUnder(at ? (thing?.words ?? positionWords(at)) : "");
                setNearId(thing?.entry?.id ?? "");
              }}
              onPress={(at, reach) => setPressed(thingAt(at, reach, charted))}
            />
            {survey.backdrop ? <SurveyCredit chosen={survey.chosen} /> : null}
          </div>
          {chartFault ? (
            <p className="text-rust mt-1" role="alert">
              {chartFault}{" "}
              <button type="button" className="underline underline-offset-4" onClick={again}>
                Try again
              </button>
            </p>
          ) : null}
          <ChartTools
            under={under}
            gaze={gaze}
            onGaze={setGaze}
            onWhole={() => setGaze(gazeOn(frame, optics, shapeOf(chart.current)))}
            look={look}
            onLook={setLook}
            onUndo={canUndo ? undo : undefined}
            onRedo={canRedo ? redo : undefined}
            status={`${status} ${picture.status}`.trim()}
            isPicture={survey.backdrop !== null}
            pressed={pressed}
            search={search}
          />
          <SurveyTools picture={survey} field={fieldOf(layout)} />
          <PanelsOnPaper
            frame={frame}
            layout={layout}
            panels={panels}
            hoursPerPanel={view.hoursPerPanel}
            hoursANight={view.hoursANight}
          />
        </div>
        <aside className="no-print space-y-4">
          <StorageRefusal fault={refusal ?? actRefusal} />
          {isHeld ? (
            <MovedQuestion
              change={changeTo(frame)}
              isBusy={isBusy}
              onCount={() => void move(true)}
              onNew={() => void move(false)}
              onBack={putBack}
            />
          ) : null}
          <Copies kind="frame" of={kept} />
          <FrameChoice
            frames={view.frames}
            current={kept.id}
            shot={view.shotFrameId}
            title={frame.title ?? ""}
            onTitle={(text) => change({ title: text })}
            onChoose={(id) => void navigate(keptSearch(params, { frame: id }), { preventScrollReset: true })}
            onAnother={() => void act({ act: "another", projectId: view.project.id, data: { ...frame, title: "" } })}
            onShoot={() => void act({ act: "shoot", projectId: view.project.id, frameId })}
          />
          <FrameLeaves
            view={view}
            frame={frame}
            layout={layout}
            panels={panels}
            objects={objects}
            near={near}
            seams={seams}
            limit={limit}
            onLimit={setLimit}
            outlines={outlines}
            change={change}
            onSeen={setSeen}
            onPicture={savePicture}
            onShow={(star) => {
              setGaze({ ...gaze, centre: star });
              setPressed(thingAt(star, 1 / 3600, { ...charted, faintest: star.magnitude + 0.1 }));
            }}
            line={line}
            fields={fields}
            onFields={setFields}
            underlay={picture.underlay}
            onUnderlay={picture.lay}
            search={search}
          />
        </aside>
      </div>
    </>
  );
}

const inTurn = (corners: readonly Equatorial<"icrs">[]) => corners.map((c) => [c.raDeg, c.decDeg] as const);

/** What other rigs would see, aimed as this frame. */
const fieldsOf = (kits: FrameView["kits"], ids: readonly string[], layout: MosaicLayout) =>
  kits
    .filter((kit) => ids.includes(kit.id))
    .map(({ rig }) => {
      const { planeWidthArcmin, planeHeightArcmin } = opticsOf(rig);
      return { name: rig.name, corners: inTurn(frameCorners(layout, planeWidthArcmin, planeHeightArcmin)) };
    });

/** The part of the sky that a mosaic stands in, with room around it. */
function fieldOf(layout: MosaicLayout) {
  const { widthArcmin, heightArcmin } = mosaicExtent(layout);
  return { centre: layout.centre, radiusDeg: Math.min(30, (0.6 * Math.hypot(widthArcmin, heightArcmin)) / 60) };
}

/** Width over height of a chart. */
const shapeOf = (box: HTMLElement | null): number => (box ? box.clientWidth / box.clientHeight : usualShape());

/** The same before it is drawn: as high as the window wants it, and on narrow windows as wide as they are. */
const usualShape = (): number =>
  window.innerWidth < 640 ? (window.innerWidth - 32) / Math.max(360, 0.62 * window.innerHeight) : 1.3;

/** A gaze that holds the whole mosaic with room around it, on a chart of this shape. */
function gazeOn(frame: FrameData, optics: Optics, shape: number): Gaze {
  const { widthArcmin, heightArcmin } = mosaicExtent(layoutOf(frame, optics));
  return {
    centre: { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg },
    heightDeg: Math.min(60, ((Math.hypot(widthArcmin, heightArcmin) / 60) * 1.25) / Math.min(1, shape)),
  };
}
