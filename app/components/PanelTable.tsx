import { panelsToCsv } from "~/core/formats";
import { panelName, type Panel } from "~/core/framing";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { download, fileStem } from "./download";
import { Button } from "./ui/Button";
import { useSay } from "./ui/Toasts";

/** Exact centres and angles of the panels, to read, copy or take as a file. */
export function PanelTable({
  panels,
  field,
  title,
}: {
  readonly panels: readonly Panel[];
  readonly field: { readonly widthArcmin: number; readonly heightArcmin: number };
  readonly title: string;
}) {
  const say = useSay();
  const csv = () => panelsToCsv(panels, field);
  const copy = () =>
    navigator.clipboard.writeText(csv()).then(
      () => say("Panel list copied."),
      () => say("The browser did not let the list be copied. Download it instead."),
    );
  return (
    <>
      <table className="text-note w-full">
        <thead className="text-faint text-left">
          <tr>
            <th scope="col" className="font-normal">
              Panel
            </th>
            <th scope="col" className="font-normal">
              RA
            </th>
            <th scope="col" className="font-normal">
              Dec
            </th>
            <th scope="col" className="text-right font-normal">
              Camera PA
            </th>
          </tr>
        </thead>
        <tbody>
          {panels.map((p) => (
            <tr key={p.number} className="border-rule border-t">
              <th scope="row" className="text-left font-semibold">
                {panelName(p.number)}
              </th>
              <td>{formatRightAscension(p.centre.raDeg)}</td>
              <td>{formatDeclination(p.centre.decDeg)}</td>
              <td className="text-right">{p.positionAngleDeg.toFixed(2)}°</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex gap-2">
        <Button onClick={() => void copy()}>Copy as CSV</Button>
        <Button onClick={() => download(`${fileStem(title)}-panels.csv`, csv(), "text/csv")}>Download CSV</Button>
      </div>
    </>
  );
}
