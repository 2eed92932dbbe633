import { Link } from "react-router";
import { isDesignation, movingKind, type MovingKind } from "~/core/catalog";
import { looksLikePosition, parsePosition } from "~/core/notation";
import { Declination, RightAscension } from "~/components/Position";

const MOVING_WORDS: Readonly<Record<MovingKind, string>> = {
  planet: "Planets move among the stars and are out of scope here; objects of that name are listed below.",
  moon: "The Moon is no target here; it is only taken into account.",
  sun: "The Sun is no target here. Never point optics near it.",
  comet: "Comets move from hour to hour and are out of scope here.",
  asteroid: "Asteroids move among the stars and are out of scope here.",
};

/** What a search text is, when it is no name of a fixed object: a position to aim at, or something that moves. */
export function SearchNote({
  query,
  isKnown,
  linkTo,
}: {
  readonly query: string;
  /** Whether something is called exactly that; null while that is not known. */
  readonly isKnown: boolean | null;
  readonly linkTo: (position: string) => string;
}) {
  const moving = movingKind(query);
  if (moving) return <p className="text-soft py-2">{MOVING_WORDS[moving]}</p>;
  const position = looksLikePosition(query) ? parsePosition(query) : null;
  if (!position?.ok) {
    if (isKnown !== false || !isDesignation(query)) return null;
    return (
      <p className="py-2">
        {query} is not in the catalogue; what is listed below only begins like it.{" "}
        <Link to={linkTo("")} className="underline underline-offset-4">
          Enter it by its coordinates
        </Link>
      </p>
    );
  }
  return (
    <p className="py-2">
      <Link to={linkTo(query)} className="underline underline-offset-4">
        Make <RightAscension deg={position.value.raDeg} />, <Declination deg={position.value.decDeg} /> a target of your
        own
      </Link>
    </p>
  );
}
