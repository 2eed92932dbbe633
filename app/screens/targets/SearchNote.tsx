import { Link } from "react-router";
import { movingKind, type MovingKind } from "~/core/catalog";
import { formatDeclination, formatRightAscension, looksLikePosition, parsePosition } from "~/core/notation";

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
  linkTo,
}: {
  readonly query: string;
  readonly linkTo: (position: string) => string;
}) {
  const moving = movingKind(query);
  if (moving) return <p className="text-soft py-2">{MOVING_WORDS[moving]}</p>;
  const position = looksLikePosition(query) ? parsePosition(query) : null;
  if (!position?.ok) return null;
  return (
    <p className="py-2">
      <Link to={linkTo(query)} className="underline underline-offset-4">
        Make {formatRightAscension(position.value.raDeg)}, {formatDeclination(position.value.decDeg)} a target of your
        own
      </Link>
    </p>
  );
}
