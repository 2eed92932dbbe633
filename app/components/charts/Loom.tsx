import { Term } from "~/components/ui/Term";
import type { LoomCell } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { CHANNEL_COLOUR } from "./channel-colour";

const SAME_MIN = 0.5; // kept and counted are one figure then

/** Panels × channels: each cell a bar filling to its goal; the weakest is named. */
export function Loom({ cells, isLarge = false }: { readonly cells: readonly LoomCell[]; readonly isLarge?: boolean }) {
  const channels = [...new Map(cells.map((c) => [`${c.channel} ${c.isShort}`, c])).values()];
  const panels = [...new Set(cells.map((c) => c.panel))];
  const wanted = cells.filter((c) => c.goalMin > 0);
  const least = wanted.reduce<LoomCell | null>((w, c) => (w === null || c.share < w.share ? c : w), null);
  // Nothing is weakest among equals, nor when it is complete.
  const isBehind = least !== null && least.share < 1 && wanted.some((c) => c.share > least.share + 0.005);
  const weakest = isBehind ? least : null;
  if (cells.length === 0) return <p className="text-soft">No goals yet: set them under Budget.</p>;
  return (
    <table className="w-full table-fixed border-separate border-spacing-x-1.5 border-spacing-y-1">
      <thead>
        <tr>
          {isLarge ? (
            <th scope="col" className="text-note text-soft w-14 text-left font-normal">
              <Term word="panel" />
            </th>
          ) : (
            <td className="w-10" />
          )}
          {channels.map(({ channel, isShort }) => (
            <th key={`${channel} ${isShort}`} scope="col" className="text-note text-soft text-left font-normal">
              {channel}
              {isShort ? " short" : ""}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {panels.map((panel) => (
          <tr key={panel}>
            <th scope="row" className="text-note text-soft text-left font-normal">
              {panel}
            </th>
            {channels.map(({ channel, isShort }) => {
              const key = `${channel} ${isShort}`;
              const cell = cells.find((c) => c.panel === panel && c.channel === channel && c.isShort === isShort);
              if (!cell) return <td key={key} />;
              const words = `${panel} ${channel}${isShort ? " short" : ""}: ${formatMinutes(cell.takenMin)} taken, ${formatMinutes(cell.keptMin)} kept, counts ${formatMinutes(cell.countedMin)} of ${formatMinutes(cell.goalMin)}${cell === weakest ? ", weakest" : ""}`;
              return (
                <td key={key} title={words} aria-label={words}>
                  <div
                    className={`relative ${isLarge ? "h-6" : "h-4"} bg-raised border-b ${cell === weakest ? "border-lamp" : "border-rule"}`}
                  >
                    <div
                      className="absolute inset-y-0 left-0"
                      style={{ width: `${Math.min(100, 100 * cell.share)}%`, background: CHANNEL_COLOUR[channel] }}
                    />
                  </div>
                  {isLarge ? (
                    <>
                      <p className={`text-note ${cell === weakest ? "text-lamp" : "text-soft"}`}>
                        {formatMinutes(cell.countedMin)} of {formatMinutes(cell.goalMin)}
                        {cell === weakest ? ", weakest" : ""}
                      </p>
                      {Math.abs(cell.keptMin - cell.countedMin) > SAME_MIN ? (
                        <p className="text-note text-faint">kept {formatMinutes(cell.keptMin)}</p>
                      ) : null}
                    </>
                  ) : null}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
