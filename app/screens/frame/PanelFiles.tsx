import { counted } from "~/components/numbers";
import { useDesk } from "~/at-desk";
import { useState } from "react";
import { FilePick } from "~/components/forms/FilePick";
import {
  headerCards,
  mocToFits,
  mocToJson,
  panelRows,
  panelsToCsv,
  panelsToVotable,
  readPanelRows,
  type OpenedPanelList,
  type PanelListFault,
  type PanelRow,
} from "~/core/formats";
import { frameCorners, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import { panelLabel, type FrameData } from "~/core/plan";
import { download, downloadBlob, fileStem } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Refusal } from "~/components/ui/Panel";
import { useSay } from "~/components/ui/Toasts";

const LARGEST_BYTES = 1_000_000;

/** Why a list of panels is not read. */
function listFaultWords(f: PanelListFault): string {
  switch (f.code) {
    case "listEmpty":
      return "There is no line in it.";
    case "listTooLong":
      return `It is too long (${f.found}); 200 panels at most.`;
    case "listNoColumns":
      return `No column for right ascension and declination among “${f.found}”. Say which they are.`;
    case "listRaUnclear":
      return "Every right ascension lies under 24: are these hours or degrees? Say which.";
    case "listCell":
      return `Line ${f.line}: “${f.found}” cannot be read. Nothing was changed.`;
    case "listNotXml":
      return `This does not read as XML (${f.found}).`;
    case "listNotVotable":
      return "This is XML, but no VOTable with a table of panels in plain cells.";
    case "listTooMany":
      return `${f.found} panels that make no grid of this rig; 100 can be put down by hand. Nothing was changed.`;
    case "listTooFar":
      return `Line ${f.line}: ${f.found} lies more than 45° from the middle of the list. Nothing was changed.`;
  }
}

/** Panels out as CSV, VOTable, header cards and picture; panels in from CSV and VOTable, of ours or from elsewhere. */
export function PanelFiles({
  panels,
  layout,
  frame,
  optics,
  sensor,
  title,
  onPicture,
  onRows,
}: {
  readonly panels: readonly Panel[];
  readonly layout: MosaicLayout;
  readonly frame: FrameData;
  readonly optics: Optics;
  readonly sensor: { readonly widthPx: number; readonly heightPx: number };
  readonly title: string;
  readonly onPicture: () => void;
  /** Takes the panels into the frame; what comes back is why it cannot. */
  readonly onRows: (rows: readonly PanelRow[]) => PanelListFault | null;
}) {
  const desk = useDesk();
  const say = useSay();
  const [fault, setFault] = useState<PanelListFault | null>(null);
  const [asked, setAsked] = useState<OpenedPanelList["asked"]>(null);
  const rows = () => panelRows(panels, layout, frame.names ?? {});
  const csv = () => panelsToCsv(rows());
  const cards = () =>
    panels
      .map((p) =>
        headerCards({
          panel: p,
          label: panelLabel(frame, p.number),
          object: title,
          widthPx: sensor.widthPx,
          heightPx: sensor.heightPx,
          scaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
          focalLengthMm: optics.focalLengthMm,
        }),
      )
      .join("\n\n");
  /** All that the panels see, as cells of the sky. */
  const coverage = async () => {
    const { cellsCovering, coverageOrder } = await import("~/core/survey");
    const { planeWidthArcmin, planeHeightArcmin } = layout;
    const areas = panels.map((p) => frameCorners(p, planeWidthArcmin, planeHeightArcmin));
    return cellsCovering(areas, coverageOrder(Math.min(planeWidthArcmin, planeHeightArcmin) / 60));
  };
  const giveCoverage = (kind: "fits" | "json") =>
    coverage().then(
      (cells) =>
        kind === "fits"
          ? downloadBlob(`${fileStem(title)}-coverage.fits`, new Blob([mocToFits(cells)], { type: "application/fits" }))
          : download(`${fileStem(title)}-coverage.json`, mocToJson(cells), "application/json"),
      () => say("A part of the app did not load. Try again."),
    );
  const copy = () =>
    navigator.clipboard.writeText(csv()).then(
      () => say("Panel list copied."),
      () => say("The browser did not let the list be copied. Download it instead."),
    );
  const take = (read: OpenedPanelList["rows"]) => {
    const wrong = read.ok ? onRows(read.value) : read.error;
    setFault(wrong);
    if (wrong || !read.ok) return;
    setAsked(null);
    say(`${counted(read.value.length, "panel")} taken. Ctrl Z goes back.`);
  };
  const open = async (file: File, signal: AbortSignal) => {
    setAsked(null);
    if (file.size > LARGEST_BYTES)
      return setFault({ code: "listTooLong", found: `${Math.round(file.size / 1e6)} MB`, line: 0 });
    const opened = await desk.workers.files.panels(file, signal);
    take(opened.rows);
    setAsked(opened.asked);
  };
  const column = (key: "ra" | "dec" | "positionAngle" | "name", label: string) => (
    <SelectField
      label={label}
      value={asked?.mapping[key] ?? ""}
      onChange={(e) => asked && setAsked({ ...asked, mapping: { ...asked.mapping, [key]: e.target.value } })}
    >
      <option value="">none</option>
      {asked?.table.heads.map((h) => (
        <option key={h} value={h}>
          {h}
        </option>
      ))}
    </SelectField>
  );
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void copy()}>Copy as CSV</Button>
        <Button onClick={() => download(`${fileStem(title)}-panels.csv`, csv(), "text/csv")}>Download CSV</Button>
        <Button
          onClick={() => download(`${fileStem(title)}-panels.xml`, panelsToVotable(rows(), title), "application/xml")}
        >
          VOTable
        </Button>
        <Button onClick={() => download(`${fileStem(title)}-cards.txt`, cards(), "text/plain")}>FITS cards</Button>
        <Button
          title="Multi-order coverage of the sky (IVOA): cells of which a panel covers all or a part, down to a sixtieth of its short side"
          onClick={() => void giveCoverage("fits")}
        >
          Coverage, MOC in FITS
        </Button>
        <Button onClick={() => void giveCoverage("json")}>MOC in JSON</Button>
        <Button onClick={onPicture}>Chart as PNG</Button>
        <Button onClick={() => window.print()}>Print</Button>
      </div>
      <div className="mt-2">
        <FilePick
          label="Panel list"
          words="Read panels from a file"
          types={{ "text/csv": [".csv", ".txt"], "application/xml": [".xml", ".vot"] }}
          onFiles={([file], signal) => open(file, signal)}
        />
      </div>
      {fault ? (
        <Refusal>
          <p>{listFaultWords(fault)}</p>
        </Refusal>
      ) : null}
      {asked ? (
        <div className="mt-2 grid grid-cols-2 gap-3">
          {column("ra", "Right ascension is in")}
          {column("dec", "Declination is in")}
          {column("positionAngle", "Camera angle is in")}
          {column("name", "Name is in")}
          <SelectField
            label="Numbers of right ascension are"
            value={asked.mapping.raUnit ?? ""}
            onChange={(e) =>
              setAsked({
                ...asked,
                mapping: {
                  ...asked.mapping,
                  raUnit: e.target.value === "" ? null : (e.target.value as "hours" | "degrees"),
                },
              })
            }
          >
            <option value="">as they look</option>
            <option value="hours">hours</option>
            <option value="degrees">degrees</option>
          </SelectField>
          <Button onClick={() => take(readPanelRows(asked.table, asked.mapping))}>Take them</Button>
        </div>
      ) : null}
    </>
  );
}
