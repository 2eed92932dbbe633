import { useState } from "react";
import { ComparePanel } from "~/components/frame/ComparePanel";
import { CoverPanel } from "~/components/frame/CoverPanel";
import { FrameControls } from "~/components/frame/FrameControls";
import { InHere } from "~/components/frame/InHere";
import { jpegOf } from "~/components/frame/open-picture";
import { PanelFiles } from "~/components/frame/PanelFiles";
import { PanelTable } from "~/components/frame/PanelTable";
import { frameFaultWords, RepeatPanel } from "~/components/frame/RepeatPanel";
import { SeamPanel } from "~/components/frame/SeamPanel";
import type { NamedStar } from "~/components/frame/SeamReport";
import { UnderlayPanel } from "~/components/frame/UnderlayPanel";
import type { LaidPicture } from "~/components/sky-chart/underlay-layer";
import { SnapButtons } from "~/components/frame/SnapButtons";
import { Leaves } from "~/components/ui/Leaves";
import { fileFaultWords } from "~/components/words";
import { Button } from "~/components/ui/Button";
import type { CatalogEntry } from "~/core/catalog";
import { frameOfPanels, type FitsWcs } from "~/core/formats";
import {
  movedFrame,
  mosaicArea,
  mosaicExtent,
  skyToFrame,
  toleratedTurnDeg,
  type MosaicLayout,
  type Panel,
  type PlacementFound,
  type PlacementLimits,
  type SeamStar,
} from "~/core/framing";
import { formatHoursMinutes } from "~/core/notation";
import { panelLabel, type FrameData } from "~/core/plan";
import { err, ok } from "~/core/result";
import { wrap360 } from "~/core/units";
import { readHeaderInWorker, readImageInWorker } from "~/workers/files";
import { placeInWorker } from "~/workers/frame";
import type { FrameView } from "./frame.load";
import type { useOutlines } from "./use-outlines";

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
  readonly underlay: LaidPicture | null;
  readonly onUnderlay: (underlay: LaidPicture | null) => void;
  readonly search: string;
}

/** Everything beside the chart of a frame, one leaf for each kind of work. */
export function FrameLeaves(props: Props) {
  const {
    view,
    frame,
    layout,
    panels,
    objects,
    seams,
    limit,
    onLimit,
    outlines,
    change,
    onSeen,
    onPicture,
    onShow,
    underlay,
    onUnderlay,
    search,
  } = props;
  const { optics, rig, target } = view;
  const [leaf, setLeaf] = useState("frame");
  const extent = mosaicExtent(layout);
  const place = (limits: PlacementLimits, signal: AbortSignal, onProgress: (share: number) => void) =>
    placeInWorker(placementTask(props), limits, signal, onProgress);
  const takePlacement = ({ placement, overlap }: PlacementFound) => {
    const { centre, positionAngleDeg } = movedFrame(layout, placement);
    change({ raDeg: centre.raDeg, decDeg: centre.decDeg, positionAngleDeg, overlap });
  };
  const readHeader = async (file: File) => {
    const header = await readHeaderInWorker(file, new AbortController().signal);
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
          <AreaWords {...props} />
          <MosaicCautions {...props} />
          <FrameControls frame={frame} onChange={change} />
          {target ? (
            <SnapButtons target={target} optics={optics} onTurn={(pa) => change({ positionAngleDeg: pa })} />
          ) : null}
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
              onRows={(rows) =>
                change({
                  rowShift: 0,
                  names: {},
                  order: [],
                  overlapRows: undefined,
                  ...frameOfPanels(rows, optics),
                })
              }
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
          readHeader={async (file) => {
            const header = await readHeader(file);
            return header.ok ? ok(header.value) : header;
          }}
          onSeen={onSeen}
          onAdopt={(wcs) =>
            change({
              raDeg: wcs.centre.raDeg,
              decDeg: wcs.centre.decDeg,
              positionAngleDeg: wrap360(wcs.positionAngleDeg),
            })
          }
        />
      ),
    },
    {
      key: "picture",
      word: "Picture",
      isKept: true,
      content: <UnderlayPanel underlay={underlay} layout={layout} readFits={readFitsImage} onUnderlay={onUnderlay} />,
    },
    {
      key: "compare",
      word: "Compare",
      content: (
        <ComparePanel
          first={rig}
          firstId={view.rigId}
          rigs={view.rigs}
          widthArcmin={extent.widthArcmin}
          heightArcmin={extent.heightArcmin}
          panels={panels.length}
          overlap={frame.overlap}
          hoursPerPanel={view.hoursPerPanel}
          subSec={view.subSec}
          hoursANight={view.hoursANight}
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

/** A solved FITS image as an underlay, in words why it is none, or null for a file of another kind. */
async function readFitsImage(file: File, signal: AbortSignal, onProgress: (share: number) => void) {
  const read = await readImageInWorker(file, signal, onProgress);
  if (!read.ok) {
    const { error } = read;
    if (error.code === "notFits") return null;
    return "found" in error ? frameFaultWords(error) : fileFaultWords(error.code);
  }
  const { width, height, rgba, mesh } = read.value;
  const image = await createImageBitmap(new ImageData(rgba, width, height));
  return {
    image,
    widthPx: width,
    heightPx: height,
    mesh,
    opacity: 0.8,
    name: file.name,
    file: await jpegOf(image),
    corners: null,
  };
}

/** What the search for a better place starts from: stars and the target in the mosaic's frame. */
function placementTask({ layout, near, view }: Props) {
  const stars = near.flatMap((s) => {
    const p = skyToFrame(layout, s);
    return p ? [{ ...p, magnitude: s.magnitude }] : [];
  });
  const { target } = view;
  const subject = target ? skyToFrame(layout, { frame: "icrs", raDeg: target.raDeg, decDeg: target.decDeg }) : null;
  const outline = target?.majorArcmin
    ? {
        majorArcmin: target.majorArcmin,
        minorArcmin: target.minorArcmin ?? target.majorArcmin,
        angleDeg: (target.positionAngleDeg ?? 0) - layout.positionAngleDeg,
      }
    : null;
  // The outline is told about the mosaic's own centre: with the target elsewhere it says nothing.
  const isCentred = subject !== null && Math.hypot(subject.xArcmin, subject.yArcmin) < 0.25 * layout.planeHeightArcmin;
  return { layout, stars, outline: isCentred ? outline : null, subject };
}

/** What a person should know before trusting a mosaic: too little overlap, camera angles that differ, a field beyond the plane. */
function MosaicCautions({ layout, panels, frame }: Props) {
  const extent = mosaicExtent(layout);
  const off = (deg: number) => Math.abs(((((deg - frame.positionAngleDeg + 90) % 180) + 180) % 180) - 90);
  const most = Math.max(0, ...panels.map((p) => off(p.positionAngleDeg)));
  const shared = Math.min(layout.overlap, layout.overlapRows ?? layout.overlap);
  const bearsDeg = toleratedTurnDeg(layout);
  const isWide = Math.hypot(extent.widthArcmin, extent.heightArcmin) / 60 > 60;
  return (
    <>
      {isWide ? (
        <p className="text-rust mb-2">
          Over 60° from corner to corner: the plane the panels are laid out on stretches there. Plan it in parts.
        </p>
      ) : null}
      {panels.length > 1 && shared < 0.1 ? (
        <p className="text-rust mb-2">
          {shared === 0 ? "Without overlap the panels only touch" : `${(shared * 100).toFixed(0)} % is little`}: 10 to
          25 % is usual, or pointing and dither leave gaps.
        </p>
      ) : null}
      {panels.length > 1 && most > 1 ? (
        <p className="mb-2">
          So near the pole the camera angle differs from panel to panel, by up to {most.toFixed(1)}°: turn the camera
          for each one (see Panels), or share more.
        </p>
      ) : null}
      {panels.length > 1 && shared > 0 ? (
        <p className="text-soft mb-3">
          A camera angle wrong by up to {bearsDeg.toFixed(1)}° still overlaps; within 1° is fine.
        </p>
      ) : null}
    </>
  );
}

/** How much sky, how many panels, and what that means in hours and nights here. */
function AreaWords({ layout, panels, view }: Props) {
  const extent = mosaicExtent(layout);
  const { uniqueDeg2, framesDeg2 } = mosaicArea(layout);
  const hours = panels.length * view.hoursPerPanel;
  const deg = (arcmin: number) => (arcmin / 60).toFixed(2);
  return (
    <p className="mb-3">
      {deg(extent.widthArcmin)}° × {deg(extent.heightArcmin)}°
      {panels.length > 1
        ? `, ${panels.length} panels: ${panels.length} times the hours. ${uniqueDeg2.toFixed(2)} square degrees, ${Math.round((100 * uniqueDeg2) / framesDeg2)} % of what is shot.`
        : "."}
      {hours > 0
        ? ` ${formatHoursMinutes(hours)} in all${view.hoursANight > 0 ? `, ${Math.ceil(hours / view.hoursANight)} clear nights like this one` : ""}.`
        : ""}
    </p>
  );
}

/** Panels put down by hand beside the grid: moved by number. */
function ExtraPanels({
  frame,
  firstNumber,
  onChange,
  onAdd,
}: {
  readonly frame: FrameData;
  readonly firstNumber: number;
  readonly onChange: (change: Partial<FrameData>) => void;
  readonly onAdd: () => void;
}) {
  const extra = frame.extra ?? [];
  const set = (i: number, part: Partial<(typeof extra)[number]>) =>
    onChange({ extra: extra.map((e, k) => (k === i ? { ...e, ...part } : e)) });
  return (
    <div className="mt-4">
      {extra.map((e, i) => (
        <div key={i} className="border-rule flex items-center gap-2 border-t py-1">
          <span className="w-10 font-semibold">P{firstNumber + i}</span>
          {(["xArcmin", "yArcmin"] as const).map((axis) => (
            <label key={axis} className="text-note text-soft flex items-center gap-1">
              {axis === "xArcmin" ? "right" : "up"}
              <input
                type="number"
                step="1"
                className="field-box w-20 px-1 py-0"
                value={Number(e[axis].toFixed(1))}
                onChange={(event) =>
                  Number.isFinite(event.target.valueAsNumber) && set(i, { [axis]: event.target.valueAsNumber })
                }
              />
              ′
            </label>
          ))}
          <button
            type="button"
            className="text-note text-soft min-h-6 underline"
            aria-label={`Remove P${firstNumber + i}`}
            onClick={() => onChange({ extra: extra.filter((_, k) => k !== i) })}
          >
            Remove
          </button>
        </div>
      ))}
      <Button className="mt-2" onClick={onAdd}>
        Add a panel by hand
      </Button>
      {extra.length > 0 ? (
        <p className="text-note text-soft mt-1">Drag it on the chart, or move it by number.</p>
      ) : null}
    </div>
  );
}
