import { useState } from "react";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { Refusal } from "~/components/ui/Panel";
import { TownField } from "~/components/forms/TownField";
import type { Town } from "~/core/catalog";
import { WHERE_NUMBERS, type TypedStart } from "./typed-start";

/** Why a browser gives no position, in words, and what to do instead. */
const POSITION_FAULTS: Readonly<Record<number, string>> = {
  1: "The browser was not allowed to give its position. Type a town, or coordinates: one decimal (about 10 km) is enough to begin with.",
  2: "The browser does not know where it is. Type a town, or coordinates.",
  3: "The browser took too long to find its position. Try again, or type a town.",
};

/** The first answer: a town, coordinates, or the position that the browser gives when it is asked. */
export function Where({
  typed,
  faults,
  findTowns,
  onTown,
  onType,
  onPosition,
  onDone,
}: {
  readonly typed: TypedStart;
  readonly faults: Readonly<Record<string, string>>;
  readonly findTowns: (query: string) => Promise<readonly Town[]>;
  readonly onTown: (town: Town) => void;
  readonly onType: (change: Partial<TypedStart>) => void;
  readonly onPosition: (at: GeolocationCoordinates) => void;
  readonly onDone: () => void;
}) {
  const [fault, setFault] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const ask = () => {
    if (!("geolocation" in navigator)) return setFault(POSITION_FAULTS[2]!);
    setAsking(true);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        setAsking(false);
        setFault(null);
        onPosition(coords);
      },
      ({ code }) => {
        setAsking(false);
        setFault(POSITION_FAULTS[code] ?? POSITION_FAULTS[2]!);
      },
      { timeout: 10_000, maximumAge: 600_000 },
    );
  };
  const isKnown =
    typed.latitudeDeg !== "" && typed.longitudeDeg !== "" && !faults["latitudeDeg"] && !faults["longitudeDeg"];
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
      <div>
        <TownField findTowns={findTowns} onChoose={onTown} />
        <p className="mt-3 flex flex-wrap items-center gap-3">
          <Button onClick={ask} disabled={isAsking}>
            {isAsking ? "Asking the browser …" : "Use this computer’s position"}
          </Button>
          <span className="text-note text-faint">It stays in this browser.</span>
        </p>
        {fault ? (
          <Refusal>
            <p>{fault}</p>
          </Refusal>
        ) : null}
      </div>
      <div>
        <div className="grid grid-cols-3 items-end gap-3">
          {WHERE_NUMBERS.map((n) => (
            <Field
              key={n.name}
              label={n.label}
              {...(n.unit ? { unit: n.unit } : {})}
              inputMode="decimal"
              value={typed[n.name]}
              fault={faults[n.name]}
              onChange={(e) => onType({ [n.name]: e.target.value })}
            />
          ))}
        </div>
        <Button className="mt-3" disabled={!isKnown} onClick={onDone}>
          From these coordinates
        </Button>
      </div>
    </div>
  );
}
