import { useState } from "react";
import { DepthChart } from "~/components/charts/later-charts";
import { SelectField } from "~/components/ui/Field";
import { Section } from "~/components/ui/Panel";
import { limitingSurfaceMag, type Channel, type SubQuestion } from "~/core/exposure";

/** A channel of the budget whose depth can be drawn. */
interface Choice {
  readonly channel: Channel;
  readonly question: SubQuestion;
  readonly subSec: number;
  /** A panel. */
  readonly goalHours: number;
  readonly keptHours: number;
}

const POINTS = 40;

/** How deep the hours go: what more of them would still bring. */
export function DepthPanel({ choices }: { readonly choices: readonly Choice[] }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const choice = choices.find((c) => c.channel === chosen) ?? choices.find((c) => c.goalHours > 0);
  if (!choice) return null;
  const { question, subSec, goalHours, keptHours, channel } = choice;
  const at = (hours: number) => ({ hours, mag: limitingSurfaceMag(question, hours, subSec) });
  const most = Math.max(2 * goalHours, keptHours, 2);
  const marks = [
    ...(keptHours > 0.05 ? [{ ...at(keptHours), word: "kept" }] : []),
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
      <DepthChart
        channel={channel}
        points={Array.from({ length: POINTS }, (_, i) => at(((i + 1) / POINTS) * most))}
        marks={marks}
      />
    </Section>
  );
}
