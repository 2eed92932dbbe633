import { isRouteErrorResponse, Link } from "react-router";
import { FetchAnew, NOT_LOADED } from "./FetchAnew";
import type { PageFault, ProjectGap } from "~/core/records";

const WORDS: Readonly<Record<Exclude<PageFault["code"], "projectGap">, string>> = {
  unknownPlace: "There is no such place in your kit. It may have been deleted in another tab.",
  unknownRig: "There is no such rig in your kit. It may have been deleted in another tab.",
  unknownProject:
    "There is no such project here. It may have been deleted in another tab, or the link came from someone else's copy.",
  unknownTarget: "The catalogue has no object of that name.",
  badNight: "That is no date. A night is written like 2026-12-05.",
};

const PARTS: Readonly<Partial<Record<ProjectGap["part"], string>>> = { goal: "budget" };

/** Why a project cannot be put together. */
export function gapWords({ part, reason }: ProjectGap): string {
  const what = part === "project" ? "This project" : `The ${PARTS[part] ?? part} of this project`;
  return reason === null
    ? `${what} is not here: it was deleted, or was not in the file. Import the file it came from, or a backup, and it is whole again.`
    : `${what} is stored but does not read (${reason}). It is kept as it is, under Kit, Data in and out, where it can be mended.`;
}

/** Why a page cannot be shown. */
const pageFaultWords = (fault: PageFault): string =>
  fault.code === "projectGap" ? gapWords(fault.gap) : WORDS[fault.code];

/** What a loader or an action said of it; null when something else ended the page. */
const faultIn = (said: unknown): PageFault | null =>
  typeof said === "object" && said !== null && "code" in said ? (said as PageFault) : null;

/** Whether a part of the app did not load. */
export const isNotLoaded = (error: unknown): boolean => error instanceof Error && NOT_LOADED.test(error.message);

/** What ended a page, in words. */
function faultText(error: unknown): { readonly title: string; readonly why: string } {
  const title = "This page could not be computed";
  if (isRouteErrorResponse(error)) {
    const fault = faultIn(error.data);
    if (fault) return { title: fault.code === "projectGap" ? title : "Not here", why: pageFaultWords(fault) };
    if (error.status === 404) return { title: "No such page", why: "The address leads nowhere here." };
  }
  if (isNotLoaded(error)) return { title: "A part of the app did not load", why: "This page needs it." };
  return { title, why: error instanceof Error ? error.message : "Something unexpected happened." };
}

/** Why a screen did not come together, and the way back; what is stored is safe. */
export function FaultWords({ error }: { readonly error: unknown }) {
  const { title, why } = faultText(error);
  return (
    <section className="max-w-prose py-4" role="alert">
      <h1 className="text-headline">{title}</h1>
      <p className="text-soft mt-3">{why}</p>
      {isNotLoaded(error) ? <FetchAnew /> : null}
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
