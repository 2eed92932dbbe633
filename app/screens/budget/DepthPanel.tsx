import { useState } from "react";
import { counted, fixed, wordFor } from "~/components/numbers";
import { DepthChart } from "~/components/charts/later-charts";
import { SelectField } from "~/components/ui/Field";
import { Section } from "~/components/ui/Panel";
import { WhatItShows, type ShownObject } from "./WhatItShows";
import { limitingSurfaceMag, type Channel, type SubQuestion } from "~/core/exposure";

/** A channel of the budget whose depth can be drawn. */
interface Choice {
  readonly channel: Channel;
  readonly question: SubQuestion;
  readonly subSec: number;
  /** A panel, at the target's best. */
  readonly goalHours: number;
  /** By the clock, and as it counts. */
  readonly keptHours: number;
  readonly countedHours: number;
  /** Exposure a panel, as it counts, that a clear night like the chosen one brings; 0 = none. */
  readonly nightHours: number;
  /** As they count, by panel of a mosaic; empty for one panel. */
  readonly panels: readonly { readonly word: string; readonly hours: number }[];
}

const POINTS = 40;
const FEW_NIGHTS = 5;
const LEAST_HOURS = 0.05;
const LITTLE_MAG = 0.1; // hardly seen side by side; common practice, no source

/** "28 subs now show 26.1 mag/arcsec². One night like this one more brings +0.3 mag, five +0.8; …" */
function depthWords({ question, subSec, keptHours, countedHours, nightHours, goalHours }: Choice): string {
  const mag = (hours: number) => limitingSurfaceMag(question, hours, subSec);
  const has = countedHours > LEAST_HOURS;
  const subs = Math.floor((keptHours * 3600) / subSec);
  const now = has
    ? `${counted(subs, "sub")} now ${wordFor(subs, "shows", "show")} ${fixed(mag(countedHours), 1)} mag/arcsec².`
    : "Nothing is kept of it yet.";
  if (!(nightHours > LEAST_HOURS)) return `${now} The chosen night brings nothing to it.`;
  const [one, five] = [countedHours + nightHours, countedHours + FEW_NIGHTS * nightHours];
  const nights = has
    ? `One night like the chosen one brings +${fixed(mag(one) - mag(countedHours), 1)} mag, five +${fixed(mag(five) - mag(countedHours), 1)}.`
    : `One night like the chosen one would show ${fixed(mag(one), 1)} mag/arcsec², five ${fixed(mag(five), 1)}.`;
  const reached = Math.max(countedHours, goalHours);
  const gain = mag(reached + nightHours) - mag(reached);
  return gain < LITTLE_MAG
    ? `${now} ${nights} Beyond the goal a night brings ${fixed(gain, 2)} mag: hardly to be seen.`
    : `${now} ${nights} Beyond the goal a night still brings ${fixed(gain, 1)} mag.`;
}

/** After one sub, one night, five, and the whole goal. */
function stagesOf({ subSec, nightHours, goalHours }: Choice) {
  const nights =
    nightHours > LEAST_HOURS
      ? [
          { word: "One night", hours: nightHours },
          { word: "Five nights", hours: FEW_NIGHTS * nightHours },
        ]
      : [];
  const goal = goalHours > 0 ? [{ word: "The whole goal", hours: goalHours }] : [];
  return [{ word: "One sub", hours: subSec / 3600 }, ...[...nights, ...goal].sort((a, b) => a.hours - b.hours)];
}

/** How deep the hours go: what more of them would still bring. */
export function DepthPanel({
  choices,
  objectMag,
  object,
}: {
  readonly choices: readonly Choice[];
  /** What is drawn of it; null = a picture of stars, or nobody knows its size. */
  readonly object: ShownObject | null;
  readonly objectMag: number | null;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const choice = choices.find((c) => c.channel === chosen) ?? choices.find((c) => c.goalHours > 0);
  const stages = choice ? stagesOf(choice) : null;
  if (!choice) return null;
  const { question, subSec, goalHours, countedHours, nightHours, channel } = choice;
  const at = (hours: number) => ({ hours, mag: limitingSurfaceMag(question, hours, subSec) });
  const fiveNights = countedHours + FEW_NIGHTS * nightHours;
  const most = Math.max(2 * goalHours, fiveNights, countedHours, 2);
  const marks = [
    ...(countedHours > LEAST_HOURS ? [{ ...at(countedHours), word: "now" }] : []),
    ...(nightHours > LEAST_HOURS ? [{ ...at(fiveNights), word: "five nights" }] : []),
    ...(goalHours > 0
      ? [
          { ...at(goalHours), word: "goal" },
          { ...at(2 * goalHours), word: "twice" },
        ]
      : []),
  ];
  return (
    <Section
      title="How deep the hours go"
      aside={
        <SelectField label="Channel" value={channel} onChange={(e) => setChosen(e.target.value)}>
          {choices.map((c) => (
            <option key={c.channel}>{c.channel}</option>
          ))}
        </SelectField>
      }
    >
      <p className="text-soft mb-2 max-w-[68ch]">{depthWords(choice)}</p>
      <DepthChart
        objectMag={objectMag}
        channel={channel}
        points={Array.from({ length: POINTS }, (_, i) => at(((i + 1) / POINTS) * most))}
        marks={marks}
      />
      {object && stages ? (
        <WhatItShows object={object} question={question} subSec={subSec} stages={stages} panels={choice.panels} />
      ) : null}
    </Section>
  );
}
