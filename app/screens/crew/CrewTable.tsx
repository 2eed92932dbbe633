import { HourWords } from "~/components/HourWords";
import { counted, fixed } from "~/components/numbers";
import type { MemberTotal } from "~/core/crew";
import type { Channel } from "~/core/exposure";
import { formatMinutes } from "~/core/notation";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";

/** Members × channels: hours kept, what they count, and how far the goal is. */
export function CrewTable({
  totals,
  members,
  goals,
}: {
  readonly totals: readonly MemberTotal[];
  readonly members: Readonly<Record<string, string>>;
  readonly goals: readonly { readonly channel: Channel; readonly goalMin: number }[];
}) {
  const channels = [...new Set([...goals.map((g) => g.channel), ...totals.map((t) => t.channel)])];
  const people = [...new Set(totals.map((t) => t.memberId))];
  const sum = (channel: Channel) =>
    totals
      .filter((t) => t.channel === channel)
      .reduce((s, t) => ({ kept: s.kept + t.keptMin, counted: s.counted + t.countedMin }), { kept: 0, counted: 0 });
  if (people.length === 0) return <p className="text-soft my-3">Nobody has logged anything yet.</p>;
  const cell = "border-t border-rule py-2 pr-4 text-right";
  return (
    <>
      <table className="mt-2 w-full">
        <thead>
          <tr className="text-note text-soft">
            <th scope="col" className="text-left font-normal">
              Who
            </th>
            {channels.map((c) => (
              <th key={c} scope="col" className="pr-4 text-right font-normal">
                <span
                  className="mr-1.5 inline-block h-2.5 w-1.5"
                  style={{ background: CHANNEL_COLOUR[c] }}
                  aria-hidden="true"
                />
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {people.map((id) => (
            <tr key={id}>
              <th scope="row" className="border-rule border-t py-2 text-left font-semibold">
                {members[id] ?? "someone"}
              </th>
              {channels.map((channel) => {
                const t = totals.find((x) => x.memberId === id && x.channel === channel);
                return (
                  <td key={channel} className={cell}>
                    {t ? (
                      <>
                        {formatMinutes(t.keptMin)}
                        <p className="text-note text-faint">
                          {counted(t.subs, "sub")} · counts {fixed(t.countedMin / 60, 1)} h
                        </p>
                      </>
                    ) : (
                      <span className="text-faint">–</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <th scope="row" className="border-soft border-t py-2 text-left font-semibold">
              Together
            </th>
            {channels.map((channel) => {
              const { kept, counted } = sum(channel);
              const goal = goals.find((g) => g.channel === channel)?.goalMin ?? 0;
              return (
                <td key={channel} className="border-soft border-t py-2 pr-4 text-right font-semibold">
                  {formatMinutes(kept)}
                  <p className="text-note text-soft font-normal">
                    counts {fixed(counted / 60, 1)} h
                    {goal > 0 ? ` · ${Math.round((100 * counted) / goal)} % of ${formatMinutes(goal)}` : ""}
                  </p>
                </td>
              );
            })}
          </tr>
        </tbody>
      </table>
      <HourWords of={["kept", "counts"]} />
    </>
  );
}
