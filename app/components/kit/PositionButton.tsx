import { useState } from "react";
import { Button } from "~/components/ui/Button";
import { Refusal } from "~/components/ui/Panel";

/** Why a browser gives no position, in words, and what to do instead. */
const POSITION_FAULTS: Readonly<Record<number, string>> = {
  1: "The browser was not allowed to give its position. Type a town, or coordinates: one decimal (about 10 km) is enough to begin with.",
  2: "The browser does not know where it is. Type a town, or coordinates.",
  3: "The browser took too long to find its position. Try again, or type a town.",
};

/** Asks the browser where it is. */
export function PositionButton({ onPosition }: { readonly onPosition: (at: GeolocationCoordinates) => void }) {
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
  return (
    <>
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
    </>
  );
}
