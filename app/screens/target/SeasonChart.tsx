import { fixed, plain } from "~/components/numbers";
import type { MouseEvent } from "react";
import type { YearNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { MONTHS, shortNight } from "~/components/clock";

const PLOT_PX = 96;

/** Steps of one height a night, as an area. */
function area(nights: readonly YearNight[], of: (n: YearNight) => number, mostMin: number): string {
  return (
    nights.reduce((path, n, i) => {
      const y = plain(PLOT_PX - (PLOT_PX * of(n)) / mostMin, 1);
      return `${path}L${i} ${y}L${i + 1} ${y}`;
    }, `M0 ${PLOT_PX}`) + `L${nights.length} ${PLOT_PX}Z`
  );
}

/**
 * A year of nights for one target: filled = usable hours, pale = what the Moon takes. Months are marked on their first; a
 * press chooses the night under the pointer.
 */
export function SeasonChart({
  nights,
  chosen,
  onChoose,
}: {
  readonly nights: readonly YearNight[];
  readonly chosen: string;
  readonly onChoose: (date: string) => void;
}) {
  const mostMin = Math.max(120, ...nights.map((n) => n.moonlessMin));
  const hourLines = Array.from({ length: Math.floor(mostMin / 120) }, (_, i) => (i + 1) * 2);
  const at = nights.findIndex((n) => n.date === chosen);
  const choose = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const night = nights[Math.floor(((event.clientX - box.left) / box.width) * nights.length)];
    if (night) onChoose(night.date);
  };
  const months = MONTHS.map((month, i) => {
    const mine = nights.filter((n) => Number(n.date.slice(5, 7)) === i + 1);
    return { month, hours: mine.reduce((s, n) => s + n.usableMin, 0) / 60 };
  });
  const order = [...new Set(nights.map((n) => Number(n.date.slice(5, 7)) - 1))];
  return (
    <figure>
      <svg
        viewBox={`0 0 ${nights.length} ${PLOT_PX}`}
        preserveAspectRatio="none"
        className="border-rule h-28 w-full cursor-pointer border-b"
        role="img"
        aria-label={`Usable hours of ${nights.length} nights, ${months.map((m) => `${m.month} ${fixed(m.hours)} h`).join(", ")}`}
        onClick={choose}
      >
        {hourLines.map((h) => (
          <line
            key={h}
            x1="0"
            x2={nights.length}
            y1={PLOT_PX - (PLOT_PX * h * 60) / mostMin}
            y2={PLOT_PX - (PLOT_PX * h * 60) / mostMin}
            stroke="var(--rule)"
            strokeWidth="0.5"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        <path d={area(nights, (n) => n.moonlessMin, mostMin)} fill="var(--moonlit)" />
        <path d={area(nights, (n) => n.usableMin, mostMin)} fill="var(--lamp)" />
        {at >= 0 ? (
          <line
            x1={at + 0.5}
            x2={at + 0.5}
            y1="0"
            y2={PLOT_PX}
            stroke="var(--ink)"
            strokeDasharray="2 3"
            vectorEffect="non-scaling-stroke"
          />
        ) : null}
      </svg>
      <div className="text-faint relative h-5 text-[0.75rem]" aria-hidden="true">
        {nights.flatMap((n, i) =>
          n.date.endsWith("-01") && i < 0.97 * nights.length // the last one would stand outside
            ? [
                <span key={n.date} className="absolute" style={{ left: `${(100 * i) / nights.length}%` }}>
                  {MONTHS[Number(n.date.slice(5, 7)) - 1]}
                </span>,
              ]
            : [],
        )}
      </div>
      <figcaption className="text-note text-soft mt-2">
        <table className="w-full text-right">
          <thead>
            <tr className="text-faint">
              {order.map((i) => (
                <th key={i} scope="col" className="font-normal">
                  {MONTHS[i]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              {order.map((i) => (
                <td key={i}>{fixed(months[i]!.hours)} h</td>
              ))}
            </tr>
          </tbody>
        </table>
        {at >= 0 ? (
          <p className="mt-1">
            {shortNight(chosen)}: ≈ {formatMinutes(nights[at]!.usableMin)} usable,{" "}
            {formatMinutes(nights[at]!.moonlessMin)} without the Moon, which is{" "}
            {Math.round(nights[at]!.illuminatedFraction * 100)} % lit. Reckoned every 5 minutes. Highest line{" "}
            {hourLines.at(-1)} h, two hours between lines.
          </p>
        ) : null}
      </figcaption>
    </figure>
  );
}
