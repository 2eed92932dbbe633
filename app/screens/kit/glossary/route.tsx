import { useState } from "react";
import { Field } from "~/components/ui/Field";
import { anchorOf } from "~/components/words/anchor";
import { TERMS } from "~/components/words/terms";
import type { Route } from "./+types/route";

export const meta: Route.MetaFunction = () => [{ title: "Glossary · Zenithar" }];
export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

/** Every word that is explained anywhere, and what it means here. */
export default function GlossaryRoute() {
  const [sought, setSought] = useState("");
  const wanted = sought.trim().toLowerCase();
  const shown = TERMS.filter(
    ({ word, says }) => wanted === "" || word.toLowerCase().includes(wanted) || says.toLowerCase().includes(wanted),
  );
  return (
    <>
      <h1 className="text-headline">Glossary</h1>
      <p className="text-soft mt-1 max-w-prose">
        One word a thing, on every page and in every file. What numbers are made from opens where you press them.
      </p>
      <div className="mt-3 max-w-80">
        <Field
          label="Look for"
          type="search"
          value={sought}
          onChange={(e) => setSought(e.target.value)}
          placeholder="worth, seam, gain …"
        />
      </div>
      {shown.length === 0 ? (
        <p role="status" className="text-soft mt-6">
          Nothing here is called “{sought.trim()}”. Targets, projects and pages are found by Search.
        </p>
      ) : (
        <dl className="mt-4 gap-x-10 lg:columns-2">
          {shown.map(({ word, says }) => (
            <div
              key={word}
              id={anchorOf(word)}
              className="border-rule target:border-lamp mb-3 scroll-mt-24 break-inside-avoid border-l-2 pl-3"
            >
              <dt className="font-semibold">{word}</dt>
              <dd className="text-soft max-w-prose">{says}</dd>
            </div>
          ))}
        </dl>
      )}
    </>
  );
}
