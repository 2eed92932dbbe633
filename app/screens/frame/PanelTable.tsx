import { useState } from "react";
import { fixed } from "~/components/numbers";
import type { Panel } from "~/core/framing";
import { panelName } from "~/core/framing";
import { plainPosition } from "~/core/notation";
import { Declination, RightAscension } from "~/components/Position";
import type { FrameData } from "~/core/plan";

const quiet = "text-note text-soft min-h-6 min-w-6 underline disabled:opacity-40";

/** Panels in the order of shooting: exact centres and angles, names, order, and which are left out. */
export function PanelTable({
  panels,
  frame,
  onChange,
}: {
  readonly panels: readonly Panel[];
  readonly frame: FrameData;
  readonly onChange: (change: Partial<FrameData>) => void;
}) {
  const order = panels.map((p) => p.number);
  const move = (number: number, by: -1 | 1) => {
    const at = order.indexOf(number);
    const to = at + by;
    if (to < 0 || to >= order.length) return;
    const next = [...order];
    [next[at], next[to]] = [next[to]!, next[at]!];
    onChange({ order: next });
  };
  const skipped = frame.skipped ?? [];
  return (
    <>
      <table className="text-note w-full">
        <thead className="text-soft text-left">
          <tr>
            <th scope="col" className="font-normal">
              Panel
            </th>
            <th scope="col" className="font-normal">
              Centre, ICRS
            </th>
            <th scope="col" className="text-right font-normal">
              Camera PA
            </th>
            <th scope="col" className="text-right font-normal">
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {panels.map((p, i) => (
            <tr key={p.number} className="border-rule border-t align-top">
              <th scope="row" className="py-1 text-left">
                <span className="font-semibold">{panelName(p.number)}</span>
                {panels.length > 1 ? (
                  <input
                    aria-label={`Name of ${panelName(p.number)}`}
                    placeholder="name"
                    maxLength={60}
                    className="field-box mt-0.5 block w-24 px-1 py-0 font-normal"
                    value={frame.names?.[String(p.number)] ?? ""}
                    onChange={(e) => onChange({ names: { ...frame.names, [String(p.number)]: e.target.value } })}
                  />
                ) : null}
              </th>
              <td className="py-1">
                <RightAscension deg={p.centre.raDeg} />
                <br />
                <Declination deg={p.centre.decDeg} />
                <br />
                <CopyPosition name={panelName(p.number)} at={p.centre} />
              </td>
              <td className="py-1 text-right">{fixed(p.positionAngleDeg, 2)}°</td>
              <td className="py-1 text-right">
                {panels.length > 1 ? (
                  <>
                    <button
                      type="button"
                      className={quiet}
                      disabled={i === 0}
                      aria-label={`Shoot ${panelName(p.number)} earlier`}
                      onClick={() => move(p.number, -1)}
                    >
                      ↑
                    </button>
                    <button
                      type="button"
                      className={quiet}
                      disabled={i === panels.length - 1}
                      aria-label={`Shoot ${panelName(p.number)} later`}
                      onClick={() => move(p.number, 1)}
                    >
                      ↓
                    </button>
                    <button
                      type="button"
                      className={quiet}
                      aria-label={`Leave out ${panelName(p.number)}`}
                      onClick={() => onChange({ skipped: [...skipped, p.number].sort((a, b) => a - b) })}
                    >
                      out
                    </button>
                  </>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {skipped.length > 0 ? (
        <p className="text-note text-soft mt-1">
          Left out:{" "}
          {skipped.map((n) => (
            <button
              key={n}
              type="button"
              className="mr-2 min-h-6 underline"
              aria-label={`Shoot ${panelName(n)} again`}
              onClick={() => onChange({ skipped: skipped.filter((s) => s !== n) })}
            >
              {panelName(n)}
            </button>
          ))}
        </p>
      ) : null}
    </>
  );
}

/** Puts a position where a mount's program takes it from, in plain letters. */
function CopyPosition({
  name,
  at,
}: {
  readonly name: string;
  readonly at: { readonly raDeg: number; readonly decDeg: number };
}) {
  const [said, setSaid] = useState("");
  const { ra, dec } = plainPosition(at);
  const copy = () => {
    navigator.clipboard.writeText(`${ra} ${dec}`).then(
      () => setSaid("copied"),
      () => setSaid(`${ra} ${dec}`), // no right to the clipboard: to be marked by hand
    );
  };
  return (
    <button
      type="button"
      className={quiet}
      aria-label={`Copy the position of ${name}`}
      title={`${ra} ${dec}`}
      onClick={copy}
    >
      {said === "" ? "copy" : said}
    </button>
  );
}
