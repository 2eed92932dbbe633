import { Link, useFetcher } from "react-router";
import { ACTS, type ActsIntent, type RoundGoal } from "~/components/forms/acts-intent";
import { Button } from "~/components/ui/Button";
import { betterWords } from "~/components/words/better-words";
import { ROUND, type RoundStop, type RoundView } from "~/desk/kit/round";

/** What is to be seen at a stop, of what is one's own. */
function stopWords(
  stop: RoundStop,
  { placeName, projectName, assumed }: RoundView,
): { readonly head: string; readonly words: string } {
  const place = placeName ?? "your place";
  const picture = projectName ?? "your picture";
  switch (stop) {
    case "tonight":
      return {
        head: "Tonight",
        words:
          "Every page begins with its answer: here, whether to go out. A number with a dotted line under it opens what went in and how sure it is. Above are the nights to come: the one you choose governs every page.",
      };
    case "place":
      return {
        head: "Your place",
        words: `Is the sky over ${place} as dark as it says here, and what stands in the way? Draw roofs and trees where you see them: hours behind them do not count.`,
      };
    case "target":
      return {
        head: "A target",
        words: projectName
          ? `This is what you chose for ${picture}: its hours tonight, its year, its way over your skyline.`
          : "The best for tonight stand first. Open one, and start a project from it.",
      };
    case "frame":
      return {
        head: "The frame",
        words: `Drag the frame on the sky, turn it by its handle, add rows and columns for a mosaic. What you leave is kept.`,
      };
    case "hours":
      return {
        head: "The hours",
        words: `How long ${picture} takes in each filter, and how long each sub is, from your camera, your sky and what the target is. Every hour can be changed.`,
      };
    case "plan":
      return {
        head: "The plan",
        words:
          "Which nights it is likely to take, and when it may be done. It is worked out anew as nights come and go.",
      };
    case "sheet":
      return {
        head: "The run sheet",
        words: "What to do tonight, by the clock, with a checklist: on the phone in red, or printed on one page.",
      };
    case "log":
      return {
        head: "The log",
        words:
          "The morning after, drop the files of the night here. What was kept counts, and the plan goes on from it.",
      };
    case "assumed":
      return {
        head: "What is still assumed",
        words:
          assumed.length === 0
            ? "That was the round. Nothing is assumed any more: place, camera, sky and nights are your own."
            : "That was the round. These are guesses until you say otherwise, the most telling first:",
      };
  }
}

/** The round through one's first picture: at which stop one is, what is to be seen there, and on to the next. */
export function RoundBar({ view, search }: { readonly view: RoundView; readonly search: string }) {
  const { submit } = useFetcher();
  const ask = (to: RoundGoal) => {
    const intent: ActsIntent = { act: "round", to };
    void submit(JSON.stringify(intent), { method: "post", action: ACTS, encType: "application/json" });
  };
  const goTo = (stop: RoundStop) => ask({ stop, path: `${view.paths[stop] ?? "/targets"}${search}` });
  const leave = (words: string) => (
    <Button look="plain" onClick={() => ask("leave")}>
      {words}
    </Button>
  );
  const box = "no-print border-lamp mb-4 border-l-2 pl-3";
  if (view.at === "offered")
    return (
      <section aria-label="The round" className={`${box} flex flex-wrap items-center gap-x-4 gap-y-1`}>
        <p>
          The round through your first picture, on what you have just entered: eight stops, left and taken up when you
          like.
        </p>
        <span className="flex gap-2">
          <Button onClick={() => goTo(ROUND[0])}>Begin the round</Button>
          {leave("Not now")}
        </span>
      </section>
    );
  const at = view.at;
  const i = ROUND.indexOf(at);
  const next = ROUND[i + 1];
  const before = ROUND[i - 1];
  const { head, words } = stopWords(at, view);
  const isMissing = next !== undefined && view.paths[next] === null;
  return (
    <section aria-label="The round" className={box}>
      <p>
        <b>{head}</b>
        <span className="text-soft"> · the round, {next ? `${i + 1} of ${ROUND.length - 1}` : "done"}</span>
      </p>
      <p>{words}</p>
      {at === "assumed" ? (
        <ul className="mt-1">
          {view.assumed.map((b) => {
            const { to, act, better } = betterWords(b);
            return (
              <li key={`${b.what} ${b.id}`}>
                <Link to={`${to}${search}`} className="underline underline-offset-4">
                  {act}
                </Link>
                <span className="text-soft">: {better}</span>
              </li>
            );
          })}
        </ul>
      ) : null}
      {at === "assumed" ? (
        <p className="mt-1">
          <Link to={`/nights/rehearsal${search}`} className="underline underline-offset-4">
            Rehearse a night
          </Link>
          <span className="text-soft">
            : your own, or one of six that are prepared, before the first clear one comes
          </span>
        </p>
      ) : null}
      {isMissing ? (
        <p className="text-lamp">
          {next === "place" ? (
            <>
              Next comes your place:{" "}
              <Link to="/start" className="underline underline-offset-4">
                say where you observe from
              </Link>
              .
            </>
          ) : (
            "Next comes its frame: start a project from a target first."
          )}
        </p>
      ) : null}
      <p className="mt-1.5 flex flex-wrap gap-2">
        {next ? (
          <Button look="main" disabled={isMissing} onClick={() => goTo(next)}>
            {next === "assumed" ? "What is still assumed" : `On to: ${stopWords(next, view).head.toLowerCase()}`}
          </Button>
        ) : null}
        {before && next ? (
          <Button look="plain" onClick={() => goTo(before)}>
            Back
          </Button>
        ) : null}
        {leave(next ? "Leave the round" : "Close")}
      </p>
    </section>
  );
}
