import { percent, times } from "~/components/numbers";
import { SHARING_WAYS, type SharingWay } from "~/core/plan";
import type { Sharing } from "~/desk/sky/answers";

/** What the ways to share work are called. */
export const WAY_WORDS = {
  advantage: "Each what they do best",
  all: "All shoot all",
  hand: "By hand",
} as const satisfies Readonly<Record<SharingWay, string>>;

/** What every goal is met by at least. */
const metWords = (fullness: number) => (fullness < 1 ? percent(fullness) : times(fullness));

/** The ways to share the work, what each comes to, and how likely it is done in time; one is chosen. */
export function WayTable({
  sharing,
  way: chosen,
  who,
  onWay,
}: {
  readonly sharing: Sharing;
  readonly way: SharingWay;
  readonly who: (memberId: string) => string;
  readonly onWay: (way: SharingWay) => void;
}) {
  const cell = "border-rule border-t py-2 pr-4 text-right";
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[560px]">
        <caption className="sr-only">Ways to share the work</caption>
        <thead>
          <tr className="text-note text-soft text-right">
            <th scope="col" className="text-left font-normal">
              Way
            </th>
            {["Every goal met by", "Done in time", "Who gives how much of it"].map((h) => (
              <th key={h} scope="col" className="pr-4 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {SHARING_WAYS.map((way) => {
            const option = sharing.options.find((o) => o.way === way);
            return (
              <tr key={way}>
                <th scope="row" className="border-rule border-t py-2 text-left font-normal">
                  <label className="flex min-h-6 items-center gap-2">
                    <input type="radio" name="sharing-way" checked={way === chosen} onChange={() => onWay(way)} />
                    {WAY_WORDS[way]}
                  </label>
                </th>
                <td className={cell}>
                  {option ? `${metWords(option.split.fullness)}` : way === "hand" ? "once it is kept" : "not possible"}
                </td>
                <td className={`${cell} font-semibold`}>{option ? percent(option.odds) : ""}</td>
                <td className={cell}>
                  {option
                    ? sharing.sites
                        .map((s) => `${who(s.memberId)} ${percent(option.split.shares[s.memberId] ?? 0)}`)
                        .join(", ")
                    : ""}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
