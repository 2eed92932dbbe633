import { fixed } from "~/components/numbers";
import { useEffect, useState } from "react";
import type { Town } from "~/core/catalog";
import { Field } from "~/components/ui/Field";

/** Finds a town in the gazetteer that ships with the app; choosing one fills in its coordinates. */
export function TownField({
  findTowns,
  onChoose,
}: {
  readonly findTowns: (query: string) => Promise<readonly Town[]>;
  readonly onChoose: (town: Town) => void;
}) {
  const [query, setQuery] = useState("");
  const [found, setFound] = useState<{ readonly query: string; readonly towns: readonly Town[] | null }>({ query: "", towns: [] }); // prettier-ignore
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
  return (
    <div>
      <Field
        label="Town near by"
        type="search"
        value={query}
        placeholder="fills in the coordinates below"
        onChange={(e) => setQuery(e.target.value)}
        onKeyDown={(e) => e.key === "Enter" && e.preventDefault()}
        hint={
          !isAnswered
            ? "Towns of 5,000 people and more; or type coordinates."
            : found.towns === null
              ? "The gazetteer did not load: type the coordinates."
              : found.towns.length === 0
                ? "No town of that name here: type the coordinates."
                : undefined
        }
      />
      {isAnswered && found.towns && found.towns.length > 0 ? (
        <ul className="mt-1" aria-label="Towns found">
          {found.towns.map((t) => (
            <li key={`${t.name} ${t.latitudeDeg} ${t.longitudeDeg}`}>
              <button
                type="button"
                className="hover:bg-raised flex min-h-8 w-full items-center justify-between gap-3 rounded-[6px] px-2 text-left"
                onClick={() => {
                  setQuery("");
                  onChoose(t);
                }}
              >
                <span>
                  {t.name}, {t.country}
                </span>
                <span className="text-note text-faint">
                  {fixed(Math.abs(t.latitudeDeg), 2)}° {t.latitudeDeg < 0 ? "S" : "N"},{" "}
                  {fixed(Math.abs(t.longitudeDeg), 2)}° {t.longitudeDeg < 0 ? "W" : "E"}, {t.elevationM} m
                </span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
