import { fixed, times } from "~/components/numbers";
import { compass } from "~/components/words/compass";
import { frameToSky, PLAIN_STEP, softenedBy, type DepthStep } from "~/core/framing";
import { groupBy } from "~/core/numeric";
import { positionAngleDeg } from "~/core/sky";
import type { CoverageLayer } from "~/desk/sky/answers";
import { hoursWord } from "./draw-coverage";

/** How a step looks in the finished picture. */
const looks = ({ ratio, shallow }: DepthStep): string =>
  shallow === 0 ? "an end in nothing" : ratio > PLAIN_STEP ? "plain to see" : "seen once stretched";

/** Towards which sides of the picture's middle the edges lie, the longest first: "north, east"; "all round". */
function sidesOf(steps: readonly DepthStep[], { view }: CoverageLayer["map"]): string {
  const sides = [...steps]
    .sort((a, b) => b.lengthArcmin - a.lengthArcmin)
    .map(({ line: [a, b] }) => frameToSky(view, (a.x + b.x) / 2, (a.y + b.y) / 2))
    .map((at) => compass(positionAngleDeg(view.centre, at)));
  const told = [...new Set(sides)];
  return told.length > 3 ? "all round" : told.join(", ");
}

const LITTLE_HOURS = 0.05;
/** "3.0 h", or that it is next to nothing. */
const moreWords = (hours: number) => (hours < LITTLE_HOURS ? "some minutes" : hoursWord(hours));

/** Steps of depth inside the wanted field, one line for every pair of depths: where, how plain, and what would hide it. */
export function StepTable({ layer }: { readonly layer: CoverageLayer }) {
  // Edges between the same two depths are one step to whoever looks at the picture.
  const groups = [...groupBy(layer.steps, (s) => `${s.shallow.toPrecision(2)} ${s.deep.toPrecision(2)}`).values()];
  if (groups.length === 0)
    return <p className="text-soft mt-2">No step of depth in {layer.channel} will show inside the picture.</p>;
  const cell = "border-rule border-t py-1.5 pr-4 text-right";
  return (
    <div className="mt-3 overflow-x-auto">
      <table className="w-full min-w-[560px]">
        <caption className="pb-1 text-left font-semibold">Steps that will show in {layer.channel}</caption>
        <thead>
          <tr className="text-note text-soft text-right">
            <th scope="col" className="pr-4 text-left font-normal">
              How it looks
            </th>
            {["Towards", "Edge", "Deep side", "Shallow side", "Noise", "To hide it"].map((h) => (
              <th key={h} scope="col" className="pr-4 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {groups.map((group) => {
            const step = group[0]!;
            const length = group.reduce((s, e) => s + e.lengthArcmin, 0);
            return (
              <tr key={`${step.shallow} ${step.deep}`}>
                <th scope="row" className="border-rule border-t py-1.5 pr-4 text-left font-normal">
                  {looks(step)}
                </th>
                <td className={cell}>{sidesOf(group, layer.map)}</td>
                <td className={cell}>{fixed(length / 60, 1)}°</td>
                <td className={cell}>{hoursWord(step.deep)}</td>
                <td className={cell}>{step.shallow === 0 ? "nothing" : hoursWord(step.shallow)}</td>
                <td className={cell}>{step.shallow === 0 ? "–" : times(step.ratio, 2)}</td>
                <td className={cell}>{moreWords(softenedBy(step))} more there</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="text-note text-faint mt-1">
        Or cut the picture at the edge. Judged over what the picture is to fill; the noise is that of the shallow side
        against the deep one.
      </p>
    </div>
  );
}
