import { useState } from "react";
import { Form } from "react-router";
import { formatSkyline, parseSkyline } from "~/core/formats";
import { parseNumber } from "~/core/notation";
import type { Place } from "~/core/night";
import { SkylineDrawing } from "./charts/SkylineDrawing";
import type { Faults } from "./forms";
import { MONTHS, PLACE_NUMBERS } from "./place-form";
import { Button } from "./ui/Button";
import { Field, TextField } from "./ui/Field";
import { Panel } from "./ui/Panel";

/** Entering or changing a place. The time zone follows the coordinates until one types it. */
export function PlaceForm({
  place,
  baseRev,
  faults,
  findZone,
}: {
  readonly place: Place | null;
  readonly baseRev: string;
  readonly faults: Faults;
  readonly findZone: (latitudeDeg: number, longitudeDeg: number) => Promise<string | null>;
}) {
  const [base] = useState(baseRev); // what was on the page when typing began, whatever another tab stores meanwhile
  const [skylineText, setSkylineText] = useState(place ? formatSkyline(place.skyline) : "");
  const [coordinates, setCoordinates] = useState({
    latitudeDeg: String(place?.latitudeDeg ?? ""),
    longitudeDeg: String(place?.longitudeDeg ?? ""),
  });
  const [zone, setZone] = useState(place?.timeZone ?? "");
  const [lowest, setLowest] = useState(String(place?.minAltitudeDeg ?? 25));
  const drawn = parseSkyline(skylineText);
  const locate = async () => {
    const [lat, lon] = [parseNumber(coordinates.latitudeDeg), parseNumber(coordinates.longitudeDeg)];
    if (lat === null || lon === null || Math.abs(lat) > 90 || Math.abs(lon) > 180) return;
    const found = await findZone(lat, lon);
    if (found) setZone(found);
  };
  const initial: Record<string, number | undefined> = {
    elevationM: place?.elevationM,
    skyMagPerArcsec2: place?.skyMagPerArcsec2,
    seeingArcsec: place?.seeingArcsec ?? 3,
  };
  return (
    <Form method="post" className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <input type="hidden" name="baseRev" value={base} />
      <div className="space-y-4">
        <Field label="Name" name="name" defaultValue={place?.name ?? ""} fault={faults["name"]} />
        <div className="grid gap-4 sm:grid-cols-3">
          {PLACE_NUMBERS.map((spec) => {
            const about = {
              label: spec.label,
              unit: spec.unit,
              fault: faults[spec.name],
              ...("hint" in spec ? { hint: spec.hint } : {}),
            };
            if (spec.name === "latitudeDeg" || spec.name === "longitudeDeg")
              return (
                <Field
                  key={spec.name}
                  {...about}
                  name={spec.name}
                  inputMode="decimal"
                  value={coordinates[spec.name]}
                  onChange={(e) => setCoordinates({ ...coordinates, [spec.name]: e.target.value })}
                  onBlur={() => void locate()}
                />
              );
            if (spec.name === "minAltitudeDeg")
              return (
                <Field
                  key={spec.name}
                  {...about}
                  name={spec.name}
                  inputMode="decimal"
                  value={lowest}
                  onChange={(e) => setLowest(e.target.value)}
                />
              );
            return (
              <Field
                key={spec.name}
                {...about}
                name={spec.name}
                inputMode="decimal"
                defaultValue={initial[spec.name] ?? ""}
              />
            );
          })}
        </div>
        <Field
          label="Time zone"
          name="timeZone"
          value={zone}
          onChange={(e) => setZone(e.target.value)}
          fault={faults["timeZone"]}
          hint="Found from the coordinates; change it if your clocks run otherwise."
        />
        <fieldset>
          <legend className="text-note text-soft">Clear nights by month · % (long-term, your own guess will do)</legend>
          <div className="mt-1 grid grid-cols-4 gap-2 sm:grid-cols-6 xl:grid-cols-12">
            {MONTHS.map((month, i) => (
              <Field
                key={month}
                label={month}
                name={`clear${i}`}
                inputMode="numeric"
                defaultValue={Math.round(100 * (place?.clearChance[i] ?? 0.35))}
                fault={faults[`clear${i}`]}
              />
            ))}
          </div>
        </fieldset>
        <Button look="main" type="submit">
          Save place
        </Button>
      </div>
      <Panel title="Skyline" aside="azimuth altitude, one point a line">
        <SkylineDrawing widthPx={350} skyline={drawn.ok ? drawn.value : []} minAltitudeDeg={parseNumber(lowest) ?? 0} />
        <div className="mt-3">
          <TextField
            label="Points"
            unit="°, north through east"
            name="skyline"
            rows={9}
            value={skylineText}
            onChange={(e) => setSkylineText(e.target.value)}
            fault={faults["skyline"]}
            hint="Straight lines run between points. “#” begins a remark. None = level horizon."
            spellCheck={false}
          />
        </div>
      </Panel>
    </Form>
  );
}
