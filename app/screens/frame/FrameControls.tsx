import { plain } from "~/components/numbers";
import { textDraft, useDraftState } from "~/components/forms/drafts";
import { useState } from "react";
import {
  formatDeclination,
  formatRightAscension,
  parseDeclinationDeg,
  parseNumber,
  parseRightAscensionDeg,
} from "~/core/notation";
import type { FrameData } from "~/core/plan";
import { wrap360 } from "~/core/units";
import { Field, SelectField } from "~/components/ui/Field";

/** A box that takes a text when it is left or Enter is pressed, and says why when it cannot. */
function Typed({
  id,
  label,
  unit,
  shown,
  read,
}: {
  /** Whose box it is. */
  readonly id: string;
  readonly label: string;
  readonly unit?: string;
  readonly shown: string;
  readonly read: (text: string) => string | undefined;
}) {
  const typed = useDraftState<string | null>(
    { name: `frame box ${id} ${label}`, title: `a frame’s ${label.toLowerCase()}` },
    null,
    textDraft,
  );
  const draft = typed.value;
  const [fault, setFault] = useState<string | undefined>();
  const take = () => {
    if (draft === null) return;
    const wrong = read(draft);
    setFault(wrong);
    if (!wrong) typed.discard();
  };
  const about = unit ? { label, unit } : { label };
  return (
    <Field
      {...about}
      value={draft ?? shown}
      fault={fault}
      onChange={(e) => (e.target.value === shown ? typed.discard() : typed.set(e.target.value))}
      onBlur={take}
      onKeyDown={(e) => e.key === "Enter" && take()}
    />
  );
}

const MOST = Array.from({ length: 10 }, (_, i) => i + 1);

/** An overlap in percent as a share, or what is wrong with it. */
function shareOf(text: string): number | string {
  const percent = parseNumber(text);
  if (percent === null) return `“${text.trim()}” is not a number.`;
  if (percent < 0 || percent > 50) return `From 0 to 50 %; ${percent} is outside. 10 to 25 % is usual.`;
  return percent / 100;
}

/** Centre, angle, grid and overlaps by number. */
export function FrameControls({
  frame,
  onChange,
}: {
  readonly frame: FrameData;
  readonly onChange: (change: Partial<FrameData>) => void;
}) {
  const isGrid = frame.columns * frame.rows > 1;
  return (
    <div className="grid grid-cols-2 items-end gap-3">
      <Typed
        id={frame.projectId}
        label="Right ascension"
        shown={formatRightAscension(frame.raDeg)}
        read={(text) => {
          const ra = parseRightAscensionDeg(text.replaceAll(/(?<=\d)\s*[hm]\s*/g, " ").replace(/s\s*$/, ""));
          if (!ra.ok) return "Write it as 20 50 33.4, or 312.64 deg.";
          onChange({ raDeg: ra.value });
        }}
      />
      <Typed
        id={frame.projectId}
        label="Declination"
        shown={formatDeclination(frame.decDeg)}
        read={(text) => {
          const dec = parseDeclinationDeg(text);
          if (!dec.ok)
            return dec.error.code === "angleOutOfRange"
              ? "Declination runs from −90° to +90°."
              : "Write it as +30 42 10, or 30.70.";
          onChange({ decDeg: dec.value });
        }}
      />
      <Typed
        id={frame.projectId}
        label="Position angle"
        unit="° N to E"
        shown={plain(frame.positionAngleDeg, 1)}
        read={(text) => {
          const pa = parseNumber(text);
          if (pa === null || pa < -360 || pa > 360) return "A number from 0 to 360.";
          onChange({ positionAngleDeg: wrap360(pa) });
        }}
      />
      <Typed
        id={frame.projectId}
        label="Overlap"
        unit="%"
        shown={plain(frame.overlap * 100, 0)}
        read={(text) => {
          const share = shareOf(text);
          if (typeof share === "string") return share;
          onChange({ overlap: share });
        }}
      />
      {(["columns", "rows"] as const).map((axis) => (
        <SelectField
          key={axis}
          label={axis === "columns" ? "Columns" : "Rows"}
          value={frame[axis]}
          onChange={(e) => onChange({ [axis]: Number(e.target.value) })}
        >
          {MOST.map((n) => (
            <option key={n} value={n}>
              {n}
            </option>
          ))}
        </SelectField>
      ))}
      {isGrid ? (
        <>
          <Typed
            id={frame.projectId}
            label="Between rows"
            unit="% shared"
            shown={plain((frame.overlapRows ?? frame.overlap) * 100, 0)}
            read={(text) => {
              const share = shareOf(text);
              if (typeof share === "string") return share;
              onChange({ overlapRows: share });
            }}
          />
          <SelectField
            label="Rows moved by"
            value={String(frame.rowShift ?? 0)}
            onChange={(e) => onChange({ rowShift: Number(e.target.value) })}
          >
            <option value="0">nothing</option>
            <option value="0.25">a quarter panel</option>
            <option value="0.5">half a panel</option>
          </SelectField>
        </>
      ) : null}
    </div>
  );
}
