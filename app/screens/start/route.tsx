import { deskOf, useDesk } from "~/at-desk";
import { useCallback, useEffect, useRef, useState, type ReactNode } from "react";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { CameraChooser } from "~/components/kit/CameraChooser";
import { OpticsChooser } from "~/components/kit/OpticsChooser";
import { OwnValues } from "~/components/kit/OwnValues";
import { SkyChooser } from "~/components/kit/SkyChooser";
import { MountAndFilters } from "~/components/kit/MountAndFilters";
import { kindsOf } from "~/components/kit/typed-kit";
import { Field, SelectField } from "~/components/ui/Field";
import type { Town } from "~/core/catalog";
import { USUAL_CLEAR_CHANCE } from "~/core/night";
import { darknessClass, magOfDarknessClass } from "~/core/sky";
import { numberIn } from "~/components/forms/form-numbers";
import { parseNumber } from "~/core/notation";
import { PLACE_FIELDS } from "~/core/records";
import type { Answer } from "~/desk/records/answer";
import { libraryHere } from "~/desk/records/open-library";
import { KIT_PRESETS, warmUp, zoneAt } from "~/desk/kit/start";
import type { Route } from "./+types/route";
import { startAction } from "./action";
import { FirstBest } from "./FirstBest";
import type { StartIntent } from "./intents";
import { OwnExposure, type Taken } from "./OwnExposure";
import { Samples } from "./Samples";
import {
  CLEAR_OF_TEN,
  EMPTY_START,
  readTypedStart,
  START_DRAFT,
  startFaults,
  startKitOf,
  startPlaceOf,
  type TypedStart,
} from "./typed-start";
import { useFirstAnswer } from "./use-first-answer";
import { Where } from "./Where";
import { BLANKS, cameraWords, countWord, filledOf, nextOf, opticsWords, type Blank } from "./start-words";

export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  return { isEmpty: library.places.length + library.rigs.length + library.projects.length === 0 };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => startAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Start · Zenithar" }];
export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function StartRoute({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { act, refusal, isBusy } = useAct<StartIntent, Answer>();
  const findTowns = useCallback((query: string) => desk.workers.sky.towns(query, 8), [desk]);
  const typed = useDraftState<TypedStart>({ name: START_DRAFT, title: "the start" }, EMPTY_START, readTypedStart);
  const now = typed.value;
  const faults = startFaults(now);
  const kinds = kindsOf(KIT_PRESETS, now);
  const filled = filledOf(now);
  const [open, setOpen] = useState<Blank | null>(() => nextOf(now));
  const [taken, setTaken] = useState<Taken | null>(null);
  const answer = useFirstAnswer(startPlaceOf(now), startKitOf(now));
  useEffect(() => warmUp(desk), [desk]);
  const chooser = useRef<HTMLDivElement>(null);

  // Answers of the browser and of files come later than what is typed meanwhile: they are put upon that.
  const latest = useRef(now);
  useEffect(() => {
    latest.current = now;
  });
  const change = (next: Partial<TypedStart>) => {
    latest.current = { ...latest.current, ...next };
    typed.set(latest.current);
  };
  /** Fills a blank and goes to the next one that is empty. */
  const fill = (next: Partial<TypedStart>) => {
    change(next);
    setOpen(nextOf(latest.current));
    // Who goes by keys goes on where the next choice is.
    requestAnimationFrame(() => chooser.current?.querySelector<HTMLElement>("h2")?.focus());
  };
  const settle = async (latitude: number, longitude: number, more: Partial<TypedStart>) => {
    const zone = await zoneAt(latitude, longitude).catch(() => null);
    fill({
      latitudeDeg: String(latitude),
      longitudeDeg: String(longitude),
      timeZone: zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      ...more,
    });
  };
  const onTown = (town: Town) =>
    void settle(town.latitudeDeg, town.longitudeDeg, { name: town.name, elevationM: String(town.elevationM) });
  const onPosition = async ({
    latitude,
    longitude,
    altitude,
  }: Pick<GeolocationCoordinates, "latitude" | "longitude" | "altitude">) => {
    const [lat, lon] = [latitude, longitude].map((x) => Math.round(x * 1000) / 1000) as [number, number];
    const town = await desk.workers.sky.nearestTown({ latitudeDeg: lat, longitudeDeg: lon }).catch(() => null);
    const elevation = altitude ?? town?.elevationM ?? 0;
    await settle(lat, lon, {
      name: town ? `Near ${town.name}` : "My place",
      elevationM: String(Math.round(elevation)),
    });
  };
  const onCoordinates = () => {
    const [lat, lon] = [parseNumber(now.latitudeDeg), parseNumber(now.longitudeDeg)];
    if (lat !== null && lon !== null)
      void onPosition({ latitude: lat, longitude: lon, altitude: numberIn(PLACE_FIELDS.elevationM, now.elevationM) });
  };
  const begin = (targetId: string | null) => {
    const [place, kit] = [startPlaceOf(now), startKitOf(now)];
    if (place && kit) void act({ act: "begin", place, kit, targetId });
  };
  const blank = (of: Blank, words: string, empty: string) => (
    <button
      type="button"
      aria-expanded={open === of}
      onClick={() => setOpen(open === of ? null : of)}
      className={`rounded-[4px] border-b-2 px-1 text-left ${open === of ? "border-lamp" : "border-rule"} ${filled[of] ? "text-lamp" : "text-faint"}`}
    >
      {filled[of] ? words : empty}
    </button>
  );
  const asked = countWord(BLANKS.length).replace(/^./, (c) => c.toUpperCase());
  const sky = KIT_PRESETS.skies.find((s) => String(s.magPerArcsec2) === now.sky);
  return (
    <>
      <p className="text-note text-soft">{asked} answers, and tonight is worked out</p>
      <h1 className="text-headline mt-1 leading-relaxed">
        I watch from {blank("where", now.name || "my place", "where?")} with{" "}
        {blank("optics", opticsWords(now), "which telescope or lens?")} and{" "}
        {blank(
          "camera",
          cameraWords(now),
          now.camera === "" ? "which camera?" : `${cameraWords(now)}: colour or mono?`,
        )}{" "}
        under {blank("sky", sky ? `a ${sky.words.split(":")[0]} sky` : `a sky of ${now.sky} mag/arcsec²`, "which sky?")}
        .
      </h1>
      <StorageRefusal fault={refusal} />
      {typed.isRestored ? <RestoredNote onDiscard={typed.discard} /> : null}
      <div ref={chooser} className="mt-3">
        {open === "where" ? (
          <Chooser title="Where do you observe from?">
            <Where
              typed={now}
              faults={faults}
              findTowns={findTowns}
              onTown={onTown}
              onType={(c) => change("elevationM" in c ? c : { ...c, timeZone: "" })}
              onPosition={(at) => void onPosition(at)}
              onDone={onCoordinates}
            />{" "}
          </Chooser>
        ) : open === "optics" ? (
          <Chooser title="Through what?">
            <OpticsChooser presets={KIT_PRESETS} typed={now} onChoose={fill} />
          </Chooser>
        ) : open === "camera" ? (
          <Chooser title="With which camera?">
            <CameraChooser presets={KIT_PRESETS} typed={now} onChoose={fill} />
          </Chooser>
        ) : open === "sky" ? (
          <Chooser title="How dark is it there, without Moon?">
            <SkyChooser
              presets={KIT_PRESETS}
              chosen={now.sky}
              onChoose={(id) => fill({ sky: id, isSkyByLook: true })}
            />
            <div className="mt-3 grid max-w-[40rem] gap-3 sm:grid-cols-2">
              <Field
                label="Or as measured"
                unit="mag/arcsec²"
                inputMode="decimal"
                value={sky ? "" : now.sky}
                fault={faults["sky"]}
                onChange={(e) => change({ sky: e.target.value, isSkyByLook: false })}
              />
              <SelectField
                label="Or as a class"
                value={parseNumber(now.sky) === null || sky ? "" : String(darknessClass(parseNumber(now.sky)!))}
                hint="1 darkest, 9 inner city. Two scales circulate, 0.8 mag apart."
                onChange={(e) =>
                  e.target.value !== "" &&
                  fill({ sky: String(magOfDarknessClass(Number(e.target.value))), isSkyByLook: true })
                }
              >
                <option value="">not known</option>
                {Array.from({ length: 9 }, (_, i) => (
                  <option key={i} value={i + 1}>
                    {i + 1}
                  </option>
                ))}
              </SelectField>
            </div>
          </Chooser>
        ) : null}
      </div>
      {kinds && filled.where && filled.sky ? (
        <div className="mt-3 grid max-w-[78rem] gap-3 sm:grid-cols-2 lg:grid-cols-3">
          {kinds.camera.cooled ? null : (
            <fieldset className="flex flex-wrap gap-x-5 sm:col-span-2 lg:col-span-3">
              <legend className="text-note text-soft">
                The photo camera: as sold it holds back three quarters of the red light of hydrogen
              </legend>
              {[true, false].map((isStock) => (
                <label key={String(isStock)} className="flex min-h-6 items-center gap-2">
                  <input
                    type="radio"
                    name="stock"
                    checked={now.isStock === isStock}
                    onChange={() => change({ isStock })}
                  />{" "}
                  {isStock ? "as sold" : "modified for astronomy"}
                </label>
              ))}
            </fieldset>
          )}
          <MountAndFilters presets={KIT_PRESETS} typed={now} kit={kinds} onChoose={change} />
          <SelectField
            label="Of ten nights there, how many are clear?"
            value={now.clearOfTen}
            hint="Over the year. It decides how many nights a picture takes; by month it is set under Kit."
            onChange={(e) => change({ clearOfTen: e.target.value })}
          >
            <option value="">not known: {countWord(10 * USUAL_CLEAR_CHANCE)} are assumed, and called so</option>
            {CLEAR_OF_TEN.map((n) => (
              <option key={n} value={n}>
                {countWord(n)} in ten
              </option>
            ))}
          </SelectField>
        </div>
      ) : null}
      {answer.kind === "waiting" ? (
        <p className="text-soft mt-4" role="status">
          Working out tonight …
        </p>
      ) : null}
      {answer.kind === "failed" ? (
        <p className="text-rust mt-4" role="alert">
          The catalogue did not load: {answer.reason}. What you chose is kept; try again.
        </p>
      ) : null}
      {answer.kind === "known" ? <FirstBest answer={answer.answer} isBusy={isBusy} onBegin={begin} /> : null}
      {kinds ? (
        <div className="mt-4">
          <OwnValues presets={KIT_PRESETS} typed={now} faults={faults} onType={(own) => change({ own })} />
        </div>
      ) : null}
      <OwnExposure
        taken={taken}
        onTaken={(next) => {
          setTaken(next);
          const { site, own, ...kit } = next.change;
          change({ ...kit, own: { ...latest.current.own, ...own } });
          if (site) void onPosition({ latitude: site.latitudeDeg, longitude: site.longitudeDeg, altitude: null });
          else setOpen(nextOf(latest.current));
        }}
      />
      {loaderData.isEmpty ? <Samples isBusy={isBusy} onOpen={(id) => void act({ act: "sample", id })} /> : null}
    </>
  );
}

function Chooser({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-rule bg-sheet rounded-[10px] border p-4">
      <h2 className="text-section text-soft mb-2 font-serif outline-none" tabIndex={-1}>
        {title}
      </h2>
      {children}
    </section>
  );
}
