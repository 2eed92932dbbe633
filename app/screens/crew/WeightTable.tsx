import { fixed, percent } from "~/components/numbers";
import { SelectField } from "~/components/ui/Field";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import type { MemberWeight } from "~/core/ledger";

/** What each one's hours come to in hours here, by sky, rig, Moon and field, and their share of the picture. */
export function WeightTable({
  weights,
  members,
  here,
  measurers,
  measuredBy,
  isBusy,
  onMeasure,
}: {
  readonly weights: readonly MemberWeight[];
  readonly members: Readonly<Record<string, string>>;
  /** Rig and place that the hours are told for. */
  readonly here: string;
  /** Who can be the reference, and who is; null = nobody's part any more. */
  readonly measurers: readonly { readonly memberId: string; readonly words: string }[];
  readonly measuredBy: string | null;
  readonly isBusy: boolean;
  readonly onMeasure: (memberId: string) => void;
}) {
  if (weights.length < 2) return null;
  const cell = "border-rule border-t py-2 pr-4 text-right";
  return (
    <Section title="What each gives to the picture" aside={`as hours with ${here}`}>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[520px]">
          <thead>
            <tr className="text-note text-soft">
              <th scope="col" className="text-left font-normal">
                Who
              </th>
              {["Kept", "An hour there is", "Of the field", "Hours here", "Share"].map((h) => (
                <th key={h} scope="col" className="pr-4 text-right font-normal">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {weights.map((w) => (
              <tr key={w.memberId}>
                <th scope="row" className="border-rule border-t py-2 text-left font-semibold">
                  {members[w.memberId] ?? "someone"}
                </th>
                <td className={cell}>{fixed(w.keptHours, 1)} h</td>
                <td className={cell}>{w.hourIs === null ? "not known" : `${fixed(w.hourIs, 2)} h`}</td>
                <td className={cell}>{w.covers === null ? "not known" : percent(w.covers)}</td>
                <td className={cell}>{fixed(w.equivalentHours, 1)} h</td>
                <td className={`${cell} font-semibold`}>{percent(w.share)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {measurers.length > 1 ? (
        <div className="mt-3 max-w-md">
          <SelectField
            label="Goals and hours are told for"
            value={measuredBy ?? ""}
            disabled={isBusy}
            hint="For everyone in the project. Goals stay as many hours: of the other place and rig."
            onChange={(e) => onMeasure(e.target.value)}
          >
            {measuredBy === null ? <option value="">what it was begun with</option> : null}
            {measurers.map((m) => (
              <option key={m.memberId} value={m.memberId}>
                {m.words}
              </option>
            ))}
          </SelectField>
        </div>
      ) : null}
      <p className="text-note text-soft mt-2">
        <Why title="How it is weighed">
          <p>
            Signal to noise, squared, per area of sky grows with hours × light gathered × filter over the brightness of
            the sky (depth rate): an hour there is so many here. Times the worth of the light in its direction and under
            its Moon, as logged, and the part of the reference frame that it covers. What nobody knows counts as here.
            Read noise, seeing and guiding are not in it.
          </p>
        </Why>
      </p>
    </Section>
  );
}
