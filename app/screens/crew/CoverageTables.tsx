import type { Channel } from "~/core/exposure";
import { fixed, percent, times } from "~/components/numbers";
import type { CoverageView } from "~/desk/projects/coverage";
import type { Coverage, CoverageLayer } from "~/desk/sky/answers";

/** Do the fields of all fit: sizes, scales, what each covers, and what all have in common. */
export function FieldTable({
  view,
  answer,
  who,
}: {
  readonly view: CoverageView;
  readonly answer: Coverage;
  readonly who: (id: string) => string;
}) {
  if (view.fields.length < 2) return null;
  const { common } = answer;
  const cell = "border-rule border-t py-2 pr-4 text-right";
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full min-w-[520px]">
        <caption className="pb-1 text-left font-semibold">Do the fields fit?</caption>
        <thead>
          <tr className="text-note text-soft text-right">
            <th scope="col" className="text-left font-normal">
              Who
            </th>
            {["Field", "Frames", "Scale", "Of the reference field"].map((h) => (
              <th key={h} scope="col" className="pr-4 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {view.fields.map((f) => (
            <tr key={f.memberId}>
              <th scope="row" className="border-rule border-t py-2 text-left">
                <span className="font-semibold">{who(f.memberId)}</span>{" "}
                <span className="text-soft font-normal">{f.rigName}</span>
              </th>
              <td className={cell}>
                {fixed(f.widthDeg, 2)}° × {fixed(f.heightDeg, 2)}°
              </td>
              <td className={cell}>{f.panels}</td>
              <td className={cell}>{fixed(f.scaleArcsec, 2)} ″/px</td>
              <td className={cell}>{percent(f.covers)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-soft mt-1">
        {common
          ? `All frames have ${fixed(common.widthArcmin / 60, 2)}° × ${fixed(common.heightArcmin / 60, 2)}° in common: ${scaleWords(view)}`
          : "No part of the sky is in all frames: only side by side do they make one picture."}
      </p>
    </div>
  );
}

/** What scales mean for the stack: the coarsest rig's detail where hours are shared evenly. */
function scaleWords({ fields }: CoverageView): string {
  const scales = fields.map((f) => f.scaleArcsec);
  const [fine, coarse] = [Math.min(...scales), Math.max(...scales)];
  return coarse / fine < 1.5
    ? `scales are alike.`
    : `scales differ ${times(coarse / fine)}. Bring all to one grid; the coarse frames give depth, the fine ones detail.`;
}

/** Whose share of a channel is missing, and who leaves it to the others; "" where all have given some of it. */
function missingWords({ fields, rows }: CoverageView, channel: Channel, who: (id: string) => string): string {
  if (fields.length < 2) return "";
  const gave = new Set(rows.filter((r) => r.channel === channel).map((r) => r.memberId));
  const without = [...new Set(fields.map((f) => f.memberId))].filter((id) => !gave.has(id));
  const isPromised = (id: string) => fields.some((f) => f.memberId === id && f.channels.includes(channel));
  const names = (ids: readonly string[]) => ids.map(who).join(" and ");
  const [late, other] = [without.filter(isPromised), without.filter((id) => !isPromised(id))];
  return [
    late.length === 0 ? "" : `Nothing in ${channel} from ${names(late)} yet, who promised it.`,
    other.length === 0 ? "" : `${names(other)} ${other.length === 1 ? "leaves" : "leave"} ${channel} to the others.`,
  ]
    .filter((w) => w !== "")
    .join(" ");
}

/** What was taken in a channel, by whom, with what and in which panel. */
export function CoveringTable({
  view,
  layer,
  who,
}: {
  readonly view: CoverageView;
  readonly layer: CoverageLayer;
  readonly who: (id: string) => string;
}) {
  const rows = view.rows.filter((r) => r.channel === layer.channel);
  const cell = "border-rule border-t py-1.5 pr-4 text-right";
  const missing = missingWords(view, layer.channel, who);
  if (rows.length === 0)
    return (
      <p className="text-soft mt-4">
        Nobody has kept anything in {layer.channel} yet. {missing}
      </p>
    );
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full min-w-[520px]">
        <caption className="pb-1 text-left font-semibold">What lies there in {layer.channel}</caption>
        <thead>
          <tr className="text-note text-soft text-right">
            <th scope="col" className="text-left font-normal">
              Who, with what
            </th>
            {["Panel", "Pointings", "Kept", "Hours here"].map((h) => (
              <th key={h} scope="col" className="pr-4 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={`${r.memberId} ${r.rigName} ${r.panel} ${r.keptHours}`}>
              <th scope="row" className="border-rule border-t py-1.5 text-left">
                <span className="font-semibold">{who(r.memberId)}</span>{" "}
                <span className="text-soft font-normal">{r.rigName}</span>
              </th>
              <td className={cell}>{r.panel}</td>
              <td className={cell}>{r.pointings}</td>
              <td className={cell}>{fixed(r.keptHours, 1)} h</td>
              <td className={cell}>{fixed(r.hours, 1)} h</td>
            </tr>
          ))}
        </tbody>
      </table>
      {missing === "" ? null : <p className="text-lamp mt-1">{missing}</p>}
    </div>
  );
}
