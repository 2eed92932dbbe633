import { DraftMark, useChosenBox, useFormStart, type FormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { useState } from "react";
import { Form } from "react-router";
import type { Town } from "~/core/catalog";
import { formatSkyline } from "~/core/formats";
import { parseNumber } from "~/core/notation";
import { USUAL_CLEAR_CHANCE, type Place } from "~/core/night";
import { USUAL_WIND_SHARE, type LearntChance } from "~/core/weather";
import { darknessClass, magOfDarknessClass } from "~/core/sky";
import type { Faults, NumberSpec } from "~/components/forms/form-numbers";
import { MONTHS } from "~/components/clock";
import { PLACE_NUMBERS, USUAL_SEEING_ARCSEC } from "./place-numbers";
import { PositionButton } from "~/components/kit/PositionButton";
import { SkyChooser } from "~/components/kit/SkyChooser";
import type { KitPresets } from "~/core/exposure";
import { SkylineEditor } from "./SkylineEditor";
import { TownField } from "~/components/forms/TownField";
import { Field, SelectField } from "~/components/ui/Field";
import { Section } from "~/components/ui/Panel";

/** Text boxes that other things on the page follow or fill. */
const FOLLOWED = ["latitudeDeg", "longitudeDeg", "elevationM", "skyMagPerArcsec2", "minAltitudeDeg"] as const;
type Followed = (typeof FOLLOWED)[number];
const isFollowed = (name: string): name is Followed => (FOLLOWED as readonly string[]).includes(name);

const startOf = (place: Place | null, { text }: FormStart): Record<Followed, string> => ({
  latitudeDeg: text("latitudeDeg", String(place?.latitudeDeg ?? "")),
  longitudeDeg: text("longitudeDeg", String(place?.longitudeDeg ?? "")),
  elevationM: text("elevationM", String(place?.elevationM ?? "")),
  skyMagPerArcsec2: text("skyMagPerArcsec2", String(place?.skyMagPerArcsec2 ?? "")),
  minAltitudeDeg: text("minAltitudeDeg", String(place?.minAltitudeDeg ?? 25)),
});

/** Things around a place as a draft has them, or as they are kept. */
function aroundOf<T extends { readonly azimuthDeg: number }>(
  start: FormStart,
  name: string,
  kept: readonly T[] | undefined,
): readonly T[] {
  try {
    const raw: unknown = JSON.parse(start.text(name, JSON.stringify(kept ?? [])));
    return Array.isArray(raw) ? (raw as T[]).filter((thing) => Number.isFinite(thing?.azimuthDeg)) : [];
  } catch {
    return kept ?? [];
  }
}

/** Entering or changing a place. The time zone follows the coordinates until one types it. */
export function PlaceForm({
  place,
  baseRev,
  faults,
  learnt,
  findZone,
  findTowns,
  presets,
}: {
  readonly place: Place | null;
  readonly baseRev: string;
  readonly faults: Faults;
  /** Chances of clear nights as the log has it; null for a new place. */
  readonly learnt: readonly LearntChance[] | null;
  readonly findZone: (latitudeDeg: number, longitudeDeg: number) => Promise<string | null>;
  readonly findTowns: (query: string) => Promise<readonly Town[]>;
  readonly presets: KitPresets;
}) {
  const start = useFormStart();
  const [base] = useState(start.text("baseRev", baseRev)); // what was on the page when typing began, whatever another tab stores meanwhile
  const [typed, setTyped] = useState(() => startOf(place, start));
  const [skyBox, changed] = useChosenBox();
  const [name, setName] = useState(start.text("name", place?.name ?? ""));
  const [zone, setZone] = useState(start.text("timeZone", place?.timeZone ?? ""));
  const locate = async (latitude: string, longitude: string) => {
    const [lat, lon] = [parseNumber(latitude), parseNumber(longitude)];
    if (lat === null || lon === null || Math.abs(lat) > 90 || Math.abs(lon) > 180) return;
    const found = await findZone(lat, lon);
    if (found) setZone(found);
  };
  const settle = (town: Town) => {
    const [latitudeDeg, longitudeDeg] = [String(town.latitudeDeg), String(town.longitudeDeg)];
    setTyped({ ...typed, latitudeDeg, longitudeDeg, elevationM: String(town.elevationM) });
    if (name === "") setName(town.name);
    void locate(latitudeDeg, longitudeDeg);
  };
  const locateHere = ({ latitude, longitude, altitude }: GeolocationCoordinates) => {
    const [latitudeDeg, longitudeDeg] = [latitude, longitude].map((x) => String(Math.round(x * 1000) / 1000)) as [
      string,
      string,
    ];
    setTyped({
      ...typed,
      latitudeDeg,
      longitudeDeg,
      ...(altitude === null ? {} : { elevationM: String(Math.round(altitude)) }),
    });
    void locate(latitudeDeg, longitudeDeg);
    changed();
  };
  // The sky that was chosen by its look, as long as nobody types another.
  const [byLook, setByLook] = useState(
    start.text("skyByLook", place?.typical?.includes("skyMagPerArcsec2") ? String(place.skyMagPerArcsec2) : ""),
  );
  const look = (skyMagPerArcsec2: string) => {
    setTyped({ ...typed, skyMagPerArcsec2 });
    setByLook(skyMagPerArcsec2);
    changed();
  };
  const mag = parseNumber(typed.skyMagPerArcsec2);
  const other: Readonly<Record<string, number>> = {
    seeingArcsec: place?.seeingArcsec ?? USUAL_SEEING_ARCSEC,
    travelMin: place?.travelMin ?? 0,
    extraSetUpMin: place?.extraSetUpMin ?? 0,
    windPercent: Math.round(100 * (place?.windShare ?? USUAL_WIND_SHARE)),
  };
  const box = (spec: NumberSpec) => {
    const about = {
      label: spec.label,
      ...(spec.unit ? { unit: spec.unit } : {}),
      fault: faults[spec.name],
      ...(spec.hint ? { hint: spec.hint } : {}),
      name: spec.name,
      inputMode: "decimal" as const,
    };
    const { name: key } = spec;
    if (!isFollowed(key))
      return <Field key={key} {...about} defaultValue={start.text(key, String(other[key] ?? ""))} />;
    return (
      <Field
        key={key}
        {...about}
        value={typed[key]}
        onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
        {...(key.endsWith("tudeDeg") ? { onBlur: () => void locate(typed.latitudeDeg, typed.longitudeDeg) } : {})}
      />
    );
  };
  const classes = (
    <SelectField
      key="darknessClass"
      label="Darkness as a class"
      value={mag === null ? "" : String(darknessClass(mag))}
      hint="A hint only: two scales circulate, 0.8 mag apart."
      onChange={(e) => e.target.value !== "" && look(String(magOfDarknessClass(Number(e.target.value))))}
    >
      <option value="">not known</option>
      {Array.from({ length: 9 }, (_, i) => (
        <option key={i} value={i + 1}>
          {i + 1}
          {i === 0 ? ", darkest" : i === 8 ? ", inner city" : ""}
        </option>
      ))}
    </SelectField>
  );
  return (
    <Form method="post" className="max-w-[60rem]">
      <DraftMark />
      <input type="hidden" name="baseRev" value={base} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Field label="Name" name="name" value={name} onChange={(e) => setName(e.target.value)} fault={faults["name"]} />
        <div>
          <TownField findTowns={findTowns} onChoose={settle} />
          <PositionButton onPosition={locateHere} />
        </div>
      </div>
      <div className="mt-4 grid gap-4 sm:grid-cols-3">
        {PLACE_NUMBERS.flatMap((spec) => (spec.name === "skyMagPerArcsec2" ? [box(spec), classes] : [box(spec)]))}
        <Field
          label="Time zone"
          name="timeZone"
          value={zone}
          onChange={(e) => setZone(e.target.value)}
          fault={faults["timeZone"]}
          hint="Found from the coordinates; change it if your clocks run otherwise."
        />
      </div>
      <input ref={skyBox} type="hidden" name="skyByLook" value={byLook === typed.skyMagPerArcsec2 ? byLook : ""} />
      <Section
        title="How dark is it there, without Moon?"
        aside="by the look of it; a value as measured goes into the box above"
      >
        <SkyChooser presets={presets} chosen={typed.skyMagPerArcsec2} onChoose={look} />
      </Section>
      <Section title="What stands and shines around it" aside="north through east; straight up is the top">
        <SkylineEditor
          start={{
            skyline: place?.skyline ?? [],
            landmarks: aroundOf(start, "landmarks", place?.landmarks),
            domes: aroundOf(start, "domes", place?.domes),
            lamps: aroundOf(start, "lamps", place?.lamps),
          }}
          startText={start.text("skyline", formatSkyline(place?.skyline ?? []))}
          fault={faults["skyline"]}
          minAltitudeDeg={parseNumber(typed.minAltitudeDeg) ?? 0}
          zenithSkyMag={mag ?? 20}
          placeName={name}
        />
      </Section>
      <Section title="Clear nights by month" aside="% of nights, your guess; the log corrects it">
        <div className="mt-1 grid grid-cols-4 gap-2 sm:grid-cols-6 xl:grid-cols-12">
          {MONTHS.map((month, i) => (
            <Field
              key={month}
              label={month}
              name={`clear${i}`}
              inputMode="numeric"
              defaultValue={start.text(
                `clear${i}`,
                String(Math.round(100 * (place?.clearChance[i] ?? USUAL_CLEAR_CHANCE))),
              )}
              fault={faults[`clear${i}`]}
              hint={
                learnt && learnt[i]!.nights > 0
                  ? `${Math.round(100 * learnt[i]!.chance)} % by ${learnt[i]!.clear} of ${learnt[i]!.nights}`
                  : undefined
              }
            />
          ))}
        </div>
        <p className="text-note text-faint mt-2">
          Your guess weighs as much as 20 nights a month; what you log or see moves it, nights in a row counting for
          less. Nights nobody wrote down count as unknown.
        </p>
      </Section>
      <div className="pointer-events-none sticky bottom-16 mt-5 flex justify-end *:pointer-events-auto sm:bottom-4">
        <SaveButton words="Save place" />
      </div>
    </Form>
  );
}
