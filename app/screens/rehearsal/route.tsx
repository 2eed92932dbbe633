import { Link, useSearchParams, type ShouldRevalidateFunctionArgs } from "react-router";
import { deskOf } from "~/at-desk";
import { shortNight } from "~/components/clock";
import { buttonLook } from "~/components/ui/Button";
import { PREPARED } from "~/core/rehearsal";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { loadRehearsal } from "./load";
import { Rehearsal } from "./Rehearsal";
import { PREPARED_WORDS } from "./rehearsal-words";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadRehearsal(deskOf(context), request);
clientLoader.hydrate = true as const;
/** What lands in the log meanwhile changes the sheet, and must not change the night that is being played. */
export const shouldRevalidate = ({ currentUrl, nextUrl }: ShouldRevalidateFunctionArgs) =>
  currentUrl.href !== nextUrl.href;
export const meta: Route.MetaFunction = () => [{ title: "Rehearsal · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function RehearsalRoute({ loaderData: { view, hasSheet, night } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  const to = (of: string) => {
    const next = new URLSearchParams(search);
    next.set("of", of);
    return `/nights/rehearsal?${next.toString()}`;
  };
  if (view) return <Rehearsal key={`${view.of} ${view.seed} ${view.ways.join(".")}`} view={view} />;
  return (
    <div className="max-w-4xl">
      <h1 className="text-headline">Rehearsal</h1>
      <p className="mt-1 max-w-[70ch]">
        The night before the night: a sheet is played against a simulated sky and simulated kit. It stops where
        something is to be decided, and tells at the end what each decision brought. Nothing of it goes into your log
        unless you ask for it.
      </p>
      <section aria-label="Your own night" className="mt-4">
        {hasSheet ? (
          <p>
            <Link to={to("sheet")} className={buttonLook("main", "min-h-12")}>
              Rehearse the sheet of {shortNight(night)}
            </Link>
          </p>
        ) : (
          <p className="text-soft">
            Nothing is planned on {shortNight(night)}, so there is no sheet of yours to rehearse.
          </p>
        )}
      </section>
      <section aria-label="Prepared nights" className="mt-6">
        <h2 className="text-title">Prepared nights</h2>
        <p className="text-soft">Invented, each with one thing to learn.</p>
        <ul className="mt-3 grid gap-3 sm:grid-cols-2">
          {PREPARED.map((which) => (
            <li key={which} className="border-rule border-t pt-2">
              <Link to={to(which)} className="text-title underline underline-offset-4">
                {PREPARED_WORDS[which].name}
              </Link>
              <p className="text-soft mt-0.5">{PREPARED_WORDS[which].begins}</p>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
