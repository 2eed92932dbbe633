import { useMemo, useState } from "react";
import { data } from "react-router";
import { Copies } from "~/components/Copies";
import { FrameControls } from "~/components/FrameControls";
import { PanelTable } from "~/components/PanelTable";
import { SeamReport } from "~/components/SeamReport";
import { SkyChart, type Gaze } from "~/components/sky-chart/SkyChart";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { mosaicExtent, placeMosaic, skyToFrame, frameToSky, starsInSeams } from "~/core/framing";
import { layoutOf, panelsOf, type FrameData } from "~/core/plan";
import { wrap360 } from "~/core/units";
import { textOf } from "~/components/forms";
import { loadLibrary, saveAll } from "~/storage/records";
import type { Route } from "./+types/frame";
import { requireContext } from "./project-context";
import { namedStarsNear, useChartData } from "./use-chart-data";
import { useEdits } from "./use-edits";
import { useFrameDraft } from "./use-frame-draft";

const SEAM_LIMIT = 8.5;

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const c = requireContext(await loadLibrary(), params.projectId);
  return {
    frame: c.frame,
    optics: c.optics,
    rigName: c.rig.data.name,
    title: c.project.data.name,
    targetId: c.project.data.targetId,
  };
}
clientLoader.hydrate = true as const;

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const id = textOf(form, "id");
  const saved = await saveAll([
    { kind: "frame", id, data: JSON.parse(textOf(form, "frame")), baseRev: textOf(form, "baseRev") },
  ]);
  return saved.ok
    ? data({ rev: saved.value.revs[id]!, storage: null })
    : data({ rev: null, storage: saved.error.code }, { status: 507 });
}

export const meta: Route.MetaFunction = () => [{ title: "Frame · Zenithar" }];

export default function FrameRoute({ loaderData, params }: Route.ComponentProps) {
  const { frame: kept, optics, title, rigName } = loaderData;
  const { frame, change, undo, canUndo, status, storage } = useFrameDraft(kept, `/projects/${params.projectId}/frame`);
  const [gaze, setGaze] = useState<Gaze>(() => gazeOn(kept.data, optics));
  const { sky, objects } = useChartData(gaze);
  const { send } = useEdits();

  const layout = useMemo(() => layoutOf(frame, optics), [frame, optics]);
  const panels = useMemo(() => panelsOf(frame, optics), [frame, optics]);
  const extent = mosaicExtent(layout);
  const radiusDeg = Math.hypot(extent.widthArcmin, extent.heightArcmin) / 100;
  const near = useMemo(
    () =>
      sky && panels.length > 1
        ? namedStarsNear(sky, { raDeg: frame.raDeg, decDeg: frame.decDeg, radiusDeg, faintest: SEAM_LIMIT })
        : [],
    [sky, panels.length, frame.raDeg, frame.decDeg, radiusDeg],
  );
  const seams = useMemo(() => starsInSeams(layout, near), [layout, near]);
  const seamStars = useMemo(() => seams.map((s) => s.star), [seams]);

  const clearSeams = () => {
    const stars = near.flatMap((s) => {
      const p = skyToFrame(layout, s);
      return p ? [{ ...p, magnitude: s.magnitude }] : [];
    });
    const reach = Math.min(layout.planeWidthArcmin, layout.planeHeightArcmin) * 0.12;
    const { placement } = placeMosaic({ layout, stars, outline: null }, { shiftArcmin: reach, turnDeg: 5 });
    const centre = frameToSky(layout, placement.dxArcmin, placement.dyArcmin);
    change({
      raDeg: centre.raDeg,
      decDeg: centre.decDeg,
      positionAngleDeg: wrap360(frame.positionAngleDeg + placement.turnDeg),
    });
  };

  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div>
        <div className="border-rule relative h-[min(62vh,40rem)] min-h-90 overflow-hidden rounded-[8px] border">
          <SkyChart
            gaze={gaze}
            onGaze={setGaze}
            data={sky}
            objects={objects}
            layout={layout}
            panels={panels}
            seamStars={seamStars}
            onMove={(c) => change({ raDeg: c.raDeg, decDeg: c.decDeg })}
            onTurn={(pa) => change({ positionAngleDeg: wrap360(pa) })}
          />
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Button onClick={() => setGaze(gazeOn(frame, optics))}>Whole frame</Button>
          <Button
            onClick={() => setGaze({ ...gaze, heightDeg: Math.max(1 / 12, gaze.heightDeg * 0.7) })}
            aria-label="Closer"
          >
            +
          </Button>
          <Button
            onClick={() => setGaze({ ...gaze, heightDeg: Math.min(60, gaze.heightDeg / 0.7) })}
            aria-label="Wider"
          >
            −
          </Button>
          <Button onClick={undo} disabled={!canUndo}>
            Undo
          </Button>
          <p className="text-note text-faint" aria-live="polite">
            {status} Outlines are catalogue extents, not what a long exposure shows. Chart{" "}
            {gaze.heightDeg >= 1 ? `${gaze.heightDeg.toFixed(1)}°` : `${(gaze.heightDeg * 60).toFixed(0)}′`} high.
          </p>
        </div>
      </div>
      <aside className="space-y-4">
        {storage ? <StorageRefusal code={storage} /> : null}
        <Copies
          now={kept.data}
          copies={kept.copies}
          onTake={(copy) => {
            const taken = copy.data as FrameData;
            change(taken);
            send([{ kind: "frame", id: kept.id, data: taken, baseRev: "latest" }]);
          }}
          onDismiss={() => send([{ kind: "frame", id: kept.id, data: kept.data, baseRev: "latest" }])}
        />
        <Panel title={panels.length === 1 ? "Frame" : `${frame.columns} × ${frame.rows} mosaic`} aside={rigName}>
          <p className="mb-3">
            {(extent.widthArcmin / 60).toFixed(2)}° × {(extent.heightArcmin / 60).toFixed(2)}°
            {panels.length > 1 ? `, ${panels.length} panels: ${panels.length} times the hours` : ""}
          </p>
          <FrameControls frame={frame} onChange={change} />
        </Panel>
        {panels.length > 1 ? (
          <Panel title="Stars in the seams" aside={`brighter than ${SEAM_LIMIT}`}>
            <SeamReport found={seams} limit={SEAM_LIMIT} />
            {seams.length > 0 ? (
              <Button className="mt-2" onClick={clearSeams}>
                Shift and turn to clear them
              </Button>
            ) : null}
          </Panel>
        ) : null}
        <Panel title="Panel centres" aside="ICRS">
          <PanelTable
            panels={panels}
            field={{ widthArcmin: optics.planeWidthArcmin, heightArcmin: optics.planeHeightArcmin }}
            title={title}
          />
        </Panel>
      </aside>
    </div>
  );
}

/** A gaze that holds the whole mosaic with room around it. */
function gazeOn(frame: FrameData, optics: Parameters<typeof layoutOf>[1]): Gaze {
  const { widthArcmin, heightArcmin } = mosaicExtent(layoutOf(frame, optics));
  return {
    centre: { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg },
    heightDeg: Math.min(60, (Math.hypot(widthArcmin, heightArcmin) / 60) * 1.25),
  };
}
