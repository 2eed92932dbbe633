import { setTemperature } from "~/components/measures";
import { Section } from "~/components/ui/Panel";
import { SET_WORDS, shelfDay } from "~/components/words/calibration-words";
import type { ShelfSet } from "~/core/ledger";

/** The calibration frames at hand, by sets of like ones. */
export function CalibrationShelf({ sets }: { readonly sets: readonly ShelfSet[] }) {
  if (sets.length === 0) return null;
  return (
    <Section title="Calibration on the shelf" aside="run sheets say what is missing for a night">
      <div className="overflow-x-auto">
        <table className="w-full min-w-[560px]">
          <thead>
            <tr className="text-note text-soft text-left">
              {["Set", "Frames", "Sub", "Gain, offset", "Binned", "Sensor", "Camera", "Latest"].map((h) => (
                <th key={h} scope="col" className="pr-3 font-normal">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sets.map((s) => (
              <tr
                key={`${s.type} ${s.camera} ${s.filter} ${s.exposureSec} ${s.gain} ${s.offset} ${s.binning} ${s.temperatureC}`}
                className="border-rule border-t"
              >
                <th scope="row" className="py-1 pr-3 text-left font-normal">
                  {SET_WORDS[s.type]}
                  {s.filter ? `, ${s.filter}` : ""}
                </th>
                <td className="pr-3">{s.count}</td>
                <td className="pr-3">{s.exposureSec} s</td>
                <td className="pr-3">
                  {s.gain ?? "–"}
                  {s.offset === null ? "" : `, ${s.offset}`}
                </td>
                <td className="pr-3">{s.binning === null ? "–" : `${s.binning} × ${s.binning}`}</td>
                <td className="pr-3">{s.temperatureC === null ? "–" : setTemperature(s.temperatureC)}</td>
                <td className="pr-3">{s.camera || "–"}</td>
                <td className="pr-3">{s.latestMs === null ? "–" : shelfDay(s.latestMs)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
