import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { PositionButton } from "~/components/kit/PositionButton";
import { TownField } from "~/components/forms/TownField";
import type { Town } from "~/core/catalog";
import { WHERE_NUMBERS, type TypedStart } from "./typed-start";

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
  const isKnown =
    typed.latitudeDeg !== "" && typed.longitudeDeg !== "" && !faults["latitudeDeg"] && !faults["longitudeDeg"];
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
      <div>
        <TownField findTowns={findTowns} onChoose={onTown} />
        <PositionButton onPosition={onPosition} />
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
