import { isRouteErrorResponse, Link } from "react-router";

const WORDS: Readonly<Record<string, string>> = {
  unknownPlace: "There is no such place in your kit. It may have been deleted in another tab.",
  unknownRig: "There is no such rig in your kit. It may have been deleted in another tab.",
  unknownProject:
    "There is no such project here. It may have been deleted in another tab, or the link came from someone else's copy.",
  unknownTarget: "The catalogue has no object of that name.",
  badNight: "That is no date. A night is written like 2026-12-05.",
};

/** Why a screen did not come together, and the way back; what is stored is safe. */
export function FaultWords({ error }: { readonly error: unknown }) {
  const code = isRouteErrorResponse(error) ? (error.data as { code?: string } | null)?.code : undefined;
  const isMissing = isRouteErrorResponse(error) && error.status === 404 && !code;
  return (
    <section className="max-w-prose py-4" role="alert">
      <h1 className="text-headline">{isMissing ? "No such page" : "This page did not come together"}</h1>
      <p className="text-soft mt-3">
        {code
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
