import { useDesk } from "~/at-desk";
import { useMemo, useState } from "react";
import { Compositions } from "./Compositions";
import { CropPanel } from "./CropPanel";
import { ComparePanel } from "./ComparePanel";
import { CoverPanel } from "./CoverPanel";
import { FrameControls } from "./FrameControls";
import { ExtraPanels } from "./ExtraPanels";
import { InHere } from "./InHere";
import { AreaWords, MosaicCautions } from "./MosaicWords";
import { PanelFiles } from "./PanelFiles";
import { PanelTable } from "./PanelTable";
import { RepeatPanel } from "./RepeatPanel";
import { SeamPanel } from "./SeamPanel";
import type { NamedStar } from "./SeamReport";
import { UnderlayPanel } from "./UnderlayPanel";
import type { LaidPicture } from "~/drawing";
import { SnapButtons } from "./SnapButtons";
import { Button } from "~/components/ui/Button";
import { Leaves } from "~/components/ui/Leaves";
import { fileFaultWords } from "~/components/words/fault-words";
import type { CatalogEntry } from "~/core/catalog";
import { frameOfPanels, type FitsWcs } from "~/core/formats";
import {
  movedFrame,
  mosaicExtent,
  type MosaicLayout,
  type Panel,
  type PlacementFound,
  type PlacementLimits,
  type SeamStar,
} from "~/core/framing";
import { layoutOf, panelLabel, type FrameData } from "~/core/plan";
import { err, ok } from "~/core/result";
import { wrap360 } from "~/core/units";
import type { FrameView } from "./load";
import type { useLineTurn } from "./use-line-turn";
import type { useOutlines } from "./use-outlines";
import { placementTask } from "./placement-task";
import { readFitsImage } from "./open-picture";

interface Props {
  readonly view: FrameView;
  readonly frame: FrameData;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly objects: readonly CatalogEntry[];
  readonly near: readonly NamedStar[];
  readonly seams: readonly SeamStar<NamedStar>[];
  readonly limit: number;
  readonly onLimit: (limit: number) => void;
  readonly outlines: ReturnType<typeof useOutlines>;
  readonly change: (part: Partial<FrameData>) => void;
  readonly onSeen: (wcs: FitsWcs | null) => void;
  readonly onPicture: () => void;
  /** Brings a star into the middle of the chart. */
  readonly onShow: (star: NamedStar) => void;
  readonly line: ReturnType<typeof useLineTurn>;
  /** Rigs whose field is drawn on the chart, by id. */
  readonly fields: readonly string[];
  readonly onFields: (rigIds: readonly string[]) => void;
  readonly underlay: LaidPicture | null;
  readonly onUnderlay: (underlay: LaidPicture | null) => void;
  readonly search: string;
}

/** Everything beside the chart of a frame, one leaf for each kind of work. */
export function FrameLeaves({
  view,
  frame,
  layout,
  panels,
  objects,
  near,
  seams,
  limit,
  onLimit,
  outlines,
  change,
  onSeen,
  onPicture,
  onShow,
  line,
  fields,
  onFields,
  underlay,
  onUnderlay,
  search,
}: Props) {
  const desk = useDesk();
  const { optics, rig, target } = view;
  const [leaf, setLeaf] = useState("frame");
  const extent = mosaicExtent(layout);
  const kept = useMemo(() => layoutOf(view.frame.data, optics), [view.frame.data, optics]);
  const place = (
    limits: PlacementLimits,
    hardMag: number | null,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => desk.workers.frame.place({ ...placementTask({ layout, near, target }), hardMag }, limits, signal, onProgress);
  const takePlacement = ({ placement, overlap }: PlacementFound) => {
    const { centre, positionAngleDeg } = movedFrame(layout, placement);
    change({ raDeg: centre.raDeg, decDeg: centre.decDeg, positionAngleDeg, overlap });
  };
  const readHeader = async (file: File, signal: AbortSignal) => {
    const header = await desk.workers.files.header(file, signal);
    return header.ok ? header : err(fileFaultWords(header.error.code));
  };
  const addPanel = () => {
    // Beside the last one, to the right; from there it is dragged by number or by the outline it should hold.
    const extra = frame.extra ?? [];
    const last = extra.at(-1) ?? { xArcmin: extent.widthArcmin / 2 - layout.planeWidthArcmin / 2, yArcmin: 0 };
    change({
      extra: [
        ...extra,
        { xArcmin: last.xArcmin + layout.planeWidthArcmin * (1 - layout.overlap), yArcmin: last.yArcmin },
      ],
    });
  };
  const leaves = [
    {
      key: "frame",
      word: panels.length === 1 ? "Frame" : "Mosaic",
      content: (
        <>
          <AreaWords
            layout={layout}
            panels={panels}
            hoursPerPanel={view.hoursPerPanel}
            hoursANight={view.hoursANight}
          />
          <MosaicCautions layout={layout} panels={panels} />
          <FrameControls frame={frame} onChange={change} />
          {target ? (
            <SnapButtons target={target} optics={optics} onTurn={(pa) => change({ positionAngleDeg: pa })} />
          ) : null}
          <div className="mt-3">
            <Button onClick={line.toggle}>{line.isOn ? "Stop turning by a line" : "Turn to what you see"}</Button>
            {line.isOn ? (
              <p className="text-note text-soft mt-1" role="status">
                Drag on the chart along what you see: the long side turns to it. By hand the position angle does the
                same.
              </p>
            ) : null}
          </div>
          {target ? <Compositions target={target} kept={kept} layout={layout} onTake={change} /> : null}
          <CropPanel
            crop={frame.crop}
            layout={layout}
            panels={panels}
            optics={optics}
            target={target ? { name: target.name || target.id, at: target.at } : null}
            onCrop={(crop) => change({ crop })}
          />
          <ExtraPanels frame={frame} onChange={change} onAdd={addPanel} firstNumber={frame.columns * frame.rows + 1} />
        </>
      ),
    },
    {
      key: "in",
      word: "In here",
      content: <InHere objects={objects} layout={layout} panels={panels} search={search} />,
    },
    ...(panels.length > 1
      ? [
          {
            key: "seams",
            word: "Seams",
            isKept: true,
            content: (
              <SeamPanel
                found={seams}
                limit={limit}
                onLimit={onLimit}
                sideArcmin={Math.min(layout.planeWidthArcmin, layout.planeHeightArcmin)}
                overlap={frame.overlap}
                labelOf={(number) => panelLabel(frame, number)}
                onShow={onShow}
                onSearch={place}
                onTake={takePlacement}
              />
            ),
          },
        ]
      : []),
    {
      key: "cover",
      word: "Cover",
      content: (
        <CoverPanel
          outlines={outlines.outlines}
          isDrawing={outlines.draft !== null}
          corners={outlines.draft?.length ?? 0}
          onDraw={outlines.draw}
          onAdd={outlines.addByName}
          onRemove={outlines.remove}
          onCover={outlines.cover}
          onTake={outlines.takeCover}
        />
      ),
    },
    {
      key: "panels",
      word: "Panels",
      content: (
        <>
          <h2 className="text-section text-soft mb-2">Panel centres</h2>
          <PanelTable panels={panels} frame={frame} onChange={change} />
          <div className="mt-4">
            <PanelFiles
              panels={panels}
              layout={layout}
              frame={frame}
              optics={optics}
              sensor={{
                widthPx: Math.floor(rig.sensor.widthPx / rig.sensor.binning),
                heightPx: Math.floor(rig.sensor.heightPx / rig.sensor.binning),
              }}
              title={view.title}
              onPicture={onPicture}
              onRows={(rows) => {
                const made = frameOfPanels(rows, optics);
                if (!made.ok) return made.error;
                change({ rowShift: 0, names: {}, order: [], overlapRows: undefined, ...made.value });
                return null;
              }}
            />
          </div>
        </>
      ),
    },
    {
      key: "repeat",
      word: "Repeat",
      isKept: true,
      content: (
        <RepeatPanel
          rig={rig}
          wantedDeg={frame.positionAngleDeg}
          readHeader={async (file, signal) => {
            const header = await readHeader(file, signal);
            return header.ok ? ok(header.value) : header;
          }}
          onSeen={onSeen}
          onAdopt={(wcs) =>
            change({
              raDeg: wcs.centre.raDeg,
              decDeg: wcs.centre.decDeg,
              positionAngleDeg: wrap360(wcs.shown.positionAngleDeg),
            })
          }
        />
      ),
    },
    {
      key: "picture",
      word: "Picture",
      isKept: true,
      content: (
        <UnderlayPanel
          underlay={underlay}
          layout={layout}
          readFits={(...of) => readFitsImage(desk, ...of)}
          onUnderlay={onUnderlay}
        />
      ),
    },
    {
      key: "compare",
      word: "Compare",
      content: (
        <ComparePanel
          firstId={view.rigId}
          kits={view.kits}
          goals={view.goals}
          widthArcmin={extent.widthArcmin}
          heightArcmin={extent.heightArcmin}
          panels={panels.length}
          overlap={frame.overlap}
          hoursANight={view.hoursANight}
          shown={fields}
          onShow={onFields}
        />
      ),
    },
  ];
  return (
    <Leaves
      label="Framing"
      leaves={leaves}
      value={leaves.some((l) => l.key === leaf) ? leaf : "frame"}
      onValueChange={setLeaf}
    />
  );
}
