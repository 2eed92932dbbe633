import { wrap360 } from "~/core/units";
import { plain } from "~/components/numbers";
import { FilePick } from "~/components/forms/FilePick";
import { useCallback, useEffect, useRef, useState } from "react";
import { useHistory } from "~/components/use-history";
import { formatSkyline, readSkyline } from "~/core/formats";
import { parseNumber } from "~/core/notation";
import { hiddenBelowDeg, shiftSkyline } from "~/core/sky";
import { download, fileStem } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { Field, SelectField, TextField } from "~/components/ui/Field";
import { skylineFaultWords } from "~/components/words/fault-words";
import { change, moveTo, putDown, takeAway, type Pick, type Surroundings, type Tool } from "./edit";
import { Panorama } from "./Panorama";
import { PickedFields } from "./PickedFields";

const TOOLS: readonly (readonly [Tool, string])[] = [
  ["line", "a point of the line"],
  ["box", "a shed, a house"],
  ["pole", "a pole"],
  ["tree", "a tree"],
  ["dome", "glow of a town"],
  ["lamp", "a lamp"],
];

const LARGEST_BYTES = 1_000_000;

/** What is wrong with a number of degrees that may be left empty. */
function numberFault(text: string, most: number): string | undefined {
  if (text.trim() === "") return undefined;
  const value = parseNumber(text);
  return value === null || Math.abs(value) > most ? `A number from −${most} to ${most}°.` : undefined;
}

/** Every degree of the whole silhouette, landmarks included, as text for elsewhere. */
const wholeSilhouette = (now: Surroundings): string =>
  Array.from({ length: 360 }, (_, az) => `${az} ${plain(hiddenBelowDeg(now.skyline, now.landmarks, az), 1)}`).join(
    "\n",
  );

/** Draws what stands and shines around a place; the same as text, to and fro. Everything can be undone. */
export function SkylineEditor({
  start,
  startText,
  fault,
  minAltitudeDeg,
  zenithSkyMag,
  placeName,
}: {
  readonly start: Surroundings;
  /** The points as text; what is right of it is the skyline it starts with. */
  readonly startText: string;
  readonly fault: string | undefined;
  readonly minAltitudeDeg: number;
  readonly zenithSkyMag: number;
  readonly placeName: string;
}) {
  const [text, setText] = useState(startText);
  const [first] = useState<Surroundings>(() => {
    const { skyline } = readSkyline(startText);
    return { ...start, skyline: skyline.length === 1 ? [] : skyline };
  });
  const [pick, setPick] = useState<Pick | null>(null);
  const [tool, setTool] = useState<Tool>("line");
  const [turn, setTurn] = useState({ declination: "", byDeg: "", upDeg: "" });
  const read = readSkyline(text);
  const turnFaults = {
    declination: numberFault(turn.declination, 180),
    byDeg: numberFault(turn.byDeg, 360),
    upDeg: numberFault(turn.upDeg, 90),
  };

  const travel = useCallback((then: Surroundings) => {
    setText(formatSkyline(then.skyline));
    setPick(null);
  }, []);
  const { now, put, begin, commit, undo, redo, canUndo, canRedo } = useHistory(first, travel);
  // Boxes that nobody types into say by themselves that they changed.
  const mark = useRef<HTMLInputElement>(null);
  const shown = useRef(now);
  useEffect(() => {
    if (shown.current === now) return;
    shown.current = now;
    mark.current?.dispatchEvent(new Event("change", { bubbles: true }));
  }, [now]);
  const step = (next: Surroundings, picked: Pick | null = pick) => {
    put(next);
    if (next.skyline !== now.skyline) setText(formatSkyline(next.skyline));
    setPick(picked);
  };
  const onText = (value: string) => {
    setText(value);
    const { skyline } = readSkyline(value);
    if (skyline.length === 1 || JSON.stringify(skyline) === JSON.stringify(now.skyline)) return;
    put({ ...now, skyline });
    setPick(null);
  };
  const shift = (byDeg: number | null, upDeg: number | null) => {
    if (byDeg === null && upDeg === null) return;
    const around = <T extends { readonly azimuthDeg: number }>(list: readonly T[]) =>
      list.map((t) => ({ ...t, azimuthDeg: wrap360(t.azimuthDeg + (byDeg ?? 0)) }));
    const next: Surroundings = {
      skyline: shiftSkyline(now.skyline, byDeg ?? 0, upDeg ?? 0),
      landmarks: around(now.landmarks),
      domes: around(now.domes),
      lamps: around(now.lamps),
    };
    step(next, null);
  };
  const remove = (p: Pick) => {
    const { next, pick: then } = takeAway(now, p);
    step(next, then);
  };
  const wrong = fault ?? read.faults.map(skylineFaultWords).join(" ");
  return (
    <section aria-label="Skyline">
      <input ref={mark} type="hidden" name="landmarks" value={JSON.stringify(now.landmarks)} />
      <input type="hidden" name="domes" value={JSON.stringify(now.domes)} />
      <input type="hidden" name="lamps" value={JSON.stringify(now.lamps)} />
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <div className="w-52">
          <SelectField
            label="Press on the panorama to put down"
            value={tool}
            onChange={(e) => setTool(e.target.value as Tool)}
          >
            {TOOLS.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </SelectField>
        </div>
        <Button
          onClick={() => {
            const { next, pick: then } = putDown(now, tool, { azimuthDeg: 180, altitudeDeg: 20 });
            step(next, then);
          }}
        >
          Put one in the south
        </Button>
        <Button look="plain" onClick={undo} disabled={!canUndo}>
          Undo
        </Button>
        <Button look="plain" onClick={redo} disabled={!canRedo}>
          Redo
        </Button>
      </div>
      <Panorama
        now={now}
        pick={pick}
        minAltitudeDeg={minAltitudeDeg}
        zenithSkyMag={zenithSkyMag}
        onPress={(at) => {
          const { next, pick: then } = putDown(now, tool, at);
          step(next, then);
        }}
        onPick={setPick}
        onMove={(p, to, isDone) => {
          begin();
          step(moveTo(now, p, to), p);
          if (isDone) commit();
        }}
        onRemove={remove}
      />
      {pick ? (
        <PickedFields
          now={now}
          pick={pick}
          onChange={(fields) => step(change(now, pick, fields))}
          onMove={(azimuthDeg) =>
            step(moveTo(now, pick, { azimuthDeg, altitudeDeg: now.skyline[pick.index]!.altitudeDeg }))
          }
          onRemove={() => remove(pick)}
        />
      ) : (
        <p className="text-note text-faint mt-2">
          Arrow keys move what is picked by 1°, with Shift by 0.1°; Enter adds beside it, Delete removes it. Dashed: the
          lowest altitude you use.
        </p>
      )}
      <div className="mt-4 grid gap-4 sm:grid-cols-2">
        <TextField
          label="Points"
          unit="azimuth altitude, °, north through east"
          name="skyline"
          rows={7}
          value={text}
          onChange={(e) => onText(e.target.value)}
          fault={wrong === "" ? undefined : wrong}
          hint={
            read.unsorted
              ? `Line ${read.unsorted.line}, “${read.unsorted.text}”, runs back: the points are sorted by azimuth.`
              : "Straight lines run between points. “#” begins a remark. None = level horizon."
          }
          spellCheck={false}
        />
        <div className="space-y-3">
          <div className="flex flex-wrap items-center gap-3">
            <FilePick
              label="Skyline file"
              words="Read points from a file"
              look="plain"
              types={{ "text/plain": [".txt", ".hrz"], "text/csv": [".csv"] }}
              mostBytes={LARGEST_BYTES}
              onFiles={([file]) => file.text().then(onText)}
            />
            <Button
              look="plain"
              onClick={() => download(`${fileStem(placeName)}-skyline.txt`, formatSkyline(now.skyline), "text/plain")}
            >
              Save the line
            </Button>
            <Button
              look="plain"
              onClick={() => download(`${fileStem(placeName)}-silhouette.txt`, wholeSilhouette(now), "text/plain")}
            >
              Save it with landmarks
            </Button>
          </div>
          <div className="flex flex-wrap items-end gap-2">
            <div className="w-56">
              <Field
                label="Magnetic declination"
                unit="°, east positive"
                inputMode="decimal"
                value={turn.declination}
                fault={turnFaults.declination}
                onChange={(e) => setTurn({ ...turn, declination: e.target.value })}
              />
            </div>
            <Button
              disabled={turnFaults.declination !== undefined || turn.declination.trim() === ""}
              onClick={() => shift(parseNumber(turn.declination), null)}
            >
              Turn compass bearings to true north
            </Button>
          </div>
          <p className="text-note text-faint">
            East of north is positive. Use it once, when every azimuth here was read from a compass: what stands and
            shines turns with the line.
          </p>
          <div className="flex flex-wrap items-end gap-2">
            <div className="w-36">
              <Field
                label="Turn all east"
                unit="°"
                inputMode="decimal"
                value={turn.byDeg}
                fault={turnFaults.byDeg}
                onChange={(e) => setTurn({ ...turn, byDeg: e.target.value })}
              />
            </div>
            <div className="w-36">
              <Field
                label="Lift the line"
                unit="°"
                inputMode="decimal"
                value={turn.upDeg}
                fault={turnFaults.upDeg}
                onChange={(e) => setTurn({ ...turn, upDeg: e.target.value })}
              />
            </div>
            <Button
              disabled={turnFaults.byDeg !== undefined || turnFaults.upDeg !== undefined}
              onClick={() => shift(parseNumber(turn.byDeg), parseNumber(turn.upDeg))}
            >
              Shift
            </Button>
          </div>
        </div>
      </div>
    </section>
  );
}
