import { fixed } from "~/components/numbers";
import { Command } from "cmdk";
import { useEffect, useId, useState } from "react";
import type { Town } from "~/core/catalog";

/** Finds a town in the gazetteer that ships with the app; choosing one fills in its coordinates. */
export function TownField({
  findTowns,
  onChoose,
}: {
  readonly findTowns: (query: string) => Promise<readonly Town[]>;
  readonly onChoose: (town: Town) => void;
}) {
  const [query, setQuery] = useState("");
  const id = useId();
  const [found, setFound] = useState<{ readonly query: string; readonly towns: readonly Town[] | null }>({
    query: "",
    towns: [],
  });
  const wanted = query.trim();
  useEffect(() => {
    if (wanted.length < 2) return;
    let isCurrent = true;
    findTowns(wanted).then(
      (towns) => isCurrent && setFound({ query: wanted, towns }),
      () => isCurrent && setFound({ query: wanted, towns: null }),
    );
    return () => {
      isCurrent = false;
    };
  }, [wanted, findTowns]);
  const isAnswered = wanted.length >= 2 && found.query === wanted;
  const hint = !isAnswered
    ? "Towns of 5,000 people and more; or type coordinates."
    : found.towns === null
      ? "The gazetteer did not load: type the coordinates."
      : found.towns.length === 0
        ? "No town of that name here: type the coordinates."
        : "Arrows and Enter choose.";
  return (
    <Command shouldFilter={false} label="Town near by" className="flex flex-col gap-1">
      {/* The box bears the list's own label, for those who hear the page. */}
      <span aria-hidden="true" className="text-note text-soft">
        Town near by
      </span>
      <Command.Input
        value={query}
        onValueChange={setQuery}
        placeholder="fills in the coordinates"
        className="field-box"
        aria-describedby={`${id}-hint`}
        onKeyDown={(e) => {
          if (e.key === "Enter" && !isAnswered) e.preventDefault(); // the form is not sent by a search
        }}
      />
      <p id={`${id}-hint`} className="text-note text-faint">
        {hint}
      </p>
      <Command.List className={isAnswered && found.towns && found.towns.length > 0 ? "" : "hidden"}>
        {(isAnswered ? (found.towns ?? []) : []).map((t) => (
          <Command.Item
            key={`${t.name} ${t.latitudeDeg} ${t.longitudeDeg}`}
            value={`${t.name} ${t.latitudeDeg} ${t.longitudeDeg}`}
            className="data-[selected=true]:bg-raised flex min-h-8 cursor-pointer items-center justify-between gap-3 rounded-[6px] px-2"
            onSelect={() => {
              setQuery("");
              onChoose(t);
            }}
          >
            <span>
              {t.name}, {t.country}
              {t.near ? <span className="text-note text-soft"> near {t.near}</span> : null}
            </span>
            <span className="text-note text-faint">
              {fixed(Math.abs(t.latitudeDeg), 2)}° {t.latitudeDeg < 0 ? "S" : "N"}, {fixed(Math.abs(t.longitudeDeg), 2)}
              ° {t.longitudeDeg < 0 ? "W" : "E"}, {t.elevationM} m
            </span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
