import { Link } from "react-router";
import { SkyPicture, usePictureOf } from "~/components/SkyPicture";
import { findTarget } from "~/desk/sky/targets";
import { deskOf } from "~/at-desk";
import { counted, fixed } from "~/components/numbers";
import { download, downloadBlob, fileStem } from "~/components/download";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Empty, Section } from "~/components/ui/Panel";
import { useSay } from "~/components/ui/Toasts";
import { acquisitionCard } from "~/core/ledger";
import { moonPhase } from "~/core/sky";
import { utcMs } from "~/core/time";
import { choiceOf } from "~/desk/sky/choice";
import { doneOf } from "~/desk/projects/done";
import { libraryHere } from "~/desk/records/open-library";
import { requireContext } from "~/desk/projects/project";
import type { Route } from "./+types/route";
import { recordAction } from "./action";
import { cardPicture, PICTURE } from "./card-picture";
import { DonePanel } from "./DonePanel";
import type { RecordIntent } from "./intents";
import { cardAsCsv, cardAsMarkdown, cardAsText, cardLines } from "./card-text";

export async function clientLoader({ context, params, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const c = requireContext(library, params.projectId);
  const named = (list: readonly { readonly id: string; readonly data: { readonly name: string } }[], id: string) =>
    list.find((x) => x.id === id)?.data.name ?? "not known";
  const { today } = choiceOf(library, new URL(request.url).searchParams);
  return {
    done: doneOf(library, c, today, request.signal),
    title: c.project.data.name,
    layout: c.layout,
    target: await findTarget(library, c.project.data.targetId).catch(() => null),
    simulated: c.contributions.reduce((sum, { data }) => sum + (data.isSimulated ? data.taken : 0), 0),
    card: acquisitionCard(c.counted, {
      memberOf: (id) => named(library.members, id),
      rigOf: (id) => named(library.rigs, id),
      placeOf: (id) => ({
        name: named(library.places, id),
        skyMagPerArcsec2: library.places.find((p) => p.id === id)?.data.skyMagPerArcsec2 ?? null,
      }),
      // Of midnight in Greenwich: a lit share changes by a few hundredths over a night.
      moonOn: (night) => moonPhase(utcMs(Date.parse(`${night}T24:00:00Z`))).illuminatedFraction,
    }),
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  recordAction(deskOf(context), request, params.projectId);

export const meta: Route.MetaFunction = () => [{ title: "Record · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

/** What a finished picture was made from, to be put beside it. */
export default function RecordRoute({
  loaderData: { title, card, done, simulated, layout, target },
}: Route.ComponentProps) {
  const say = useSay();
  const pictureOf = usePictureOf();
  const { act, refusal, isBusy } = useAct<RecordIntent>();
  const lines = cardLines(card);
  if (lines.length === 0)
    return (
      <Empty>
        Nothing is kept for this picture yet. What it is made from will stand here, ready to go beside it, once its{" "}
        <Link to="../log" relative="path" className="underline underline-offset-4">
          first night is logged
        </Link>
        .
      </Empty>
    );
  const stem = `${fileStem(title)}-record`;
  const picture = async () => {
    const blob = await cardPicture(title, lines, await pictureOf(target, layout, 2 * PICTURE));
    if (blob) downloadBlob(`${stem}.png`, blob);
    else say("This browser draws no pictures: take the text.");
  };
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        <StorageRefusal fault={refusal} />
        {simulated > 0 ? (
          <p className="border-lamp mb-3 border-l-2 pl-3">
            {counted(simulated, "sub")} here {simulated === 1 ? "is" : "are"} simulated: of a rehearsal, and no part of
            a picture. They go out under Log.
          </p>
        ) : null}
        <DonePanel view={done} isBusy={isBusy} onState={(state) => void act({ act: "state", rev: done.rev, state })} />
        <Section title="What it is made from">
          <dl>
            {lines.map((l) => (
              <div
                key={`${l.head} ${l.words}`}
                className="border-rule grid grid-cols-[8rem_minmax(0,1fr)] gap-4 border-t py-1.5"
              >
                <dt className="text-soft truncate">{l.head}</dt>
                <dd>{l.words}</dd>
              </div>
            ))}
          </dl>
        </Section>
        {card.seasons.length > 1 ? (
          <Section title="Season by season" aside="hours kept, July to June">
            <ul>
              {card.seasons.map((s) => (
                <li key={s.from} className="border-rule border-t py-1.5">
                  <b>
                    {s.from}/{String(Number(s.from) + 1).slice(2)}
                  </b>{" "}
                  {fixed(s.hours, 1)} h in {counted(s.nights, "night")}
                  <span className="text-soft">
                    {" "}
                    · {s.channels.map((c) => `${c.channel} ${fixed(c.hours, 1)} h`).join(", ")}
                  </span>
                </li>
              ))}
            </ul>
          </Section>
        ) : null}
      </div>
      <aside>
        <div className="mb-4">
          <SkyPicture entry={target} frame={layout} sizePx={320} label={`${title}: its frame on the sky`} />
        </div>
        <div className="no-print">
          <Section title="Take it along">
            <p className="text-soft mb-2">To go beside the picture, wherever it is shown.</p>
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => download(`${stem}.txt`, cardAsText(title, card), "text/plain")}>Text</Button>
              <Button onClick={() => download(`${stem}.md`, cardAsMarkdown(title, card), "text/markdown")}>
                Markdown
              </Button>
              <Button onClick={() => download(`${stem}.csv`, cardAsCsv(title, card), "text/csv")}>CSV</Button>
              <Button onClick={() => void picture()}>Picture</Button>
            </div>
          </Section>
        </div>
      </aside>
    </div>
  );
}
