import { isRouteErrorResponse, Link } from "react-router";

const WORDS: Readonly<Record<string, string>> = {
  unknownPlace: "There is no such place in your kit. It may have been deleted in another tab.",
  unknownRig: "There is no such rig in your kit. It may have been deleted in another tab.",
  unknownProject:
    "There is no such project here. It may have been deleted in another tab, or the link came from someone else's copy.",
  unknownTarget: "The catalogue has no object of that name.",
  badNight: "That is no date. A night is written like 2026-12-05.",
};

const PARTS: Readonly<Record<string, string>> = { goal: "budget" };

/** Why a project cannot be put together. */
export function gapWords({ part, reason }: { readonly part: string; readonly reason: string | null }): string {
  const word = PARTS[part] ?? part;
  const what = part === "project" ? "This project" : `The ${word} of this project`;
  return reason === null
    ? `${what} is not here: it was deleted, or was not in the file. Import the file it came from, or a backup, and it is whole again.`
    : `${what} is stored but does not read (${reason}). It is kept as it is, under Kit, Data in and out, where it can be mended.`;
}

/** Why a screen did not come together, and the way back; what is stored is safe. */
export function FaultWords({ error }: { readonly error: unknown }) {
  const told = isRouteErrorResponse(error)
    ? (error.data as { code?: string; gap?: Parameters<typeof gapWords>[0] } | null)
    : null;
  const code = told?.code;
  const isMissing = isRouteErrorResponse(error) && error.status === 404 && !code;
  return (
    <section className="max-w-prose py-4" role="alert">
      <h1 className="text-headline">{isMissing ? "No such page" : "This page could not be computed"}</h1>
      <p className="text-soft mt-3">
        {told?.gap
          ? gapWords(told.gap)
          : code
            ? (WORDS[code] ?? code)
            : isMissing
              ? "The address leads nowhere here."
              : error instanceof Error
                ? error.message
                : "Something unexpected happened."}
      </p>
      <p className="text-soft mt-3">Nothing you entered is lost.</p>
      <p className="mt-6">
        <Link to="/" className="underline underline-offset-4">
          Back to tonight
        </Link>{" "}
        ·{" "}
        <Link to="/kit/data" className="underline underline-offset-4">
          Data in and out
        </Link>
      </p>
    </section>
  );
}

/** A whole page in place of the app, where not even its shell came together. */
export function FaultPage({ error }: { readonly error: unknown }) {
  return (
    <main className="mx-auto max-w-prose p-8">
      <FaultWords error={error} />
    </main>
  );
}
