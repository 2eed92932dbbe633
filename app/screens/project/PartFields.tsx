import type { Channel } from "~/core/exposure";
import type { PartData } from "~/core/plan";
import { SelectField } from "~/components/ui/Field";
import type { Named } from "./changed-project";

/** One's own part in a project: where and with what it is shot, and which channels one has promised. */
export function PartFields({
  own,
  channels,
  places,
  rigs,
  onChange,
}: {
  readonly own: PartData;
  /** Channels the project wants. */
  readonly channels: readonly Channel[];
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  readonly onChange: (own: PartData) => void;
}) {
  const setPart = (change: Partial<PartData>) => onChange({ ...own, ...change });
  const promised = own.channels ?? channels;
  const promise = (channel: Channel, is: boolean) => {
    const { channels: _, ...rest } = own;
    const next = is ? [...promised, channel] : promised.filter((c) => c !== channel);
    onChange(channels.every((c) => next.includes(c)) ? rest : { ...rest, channels: next });
  };
  const bind = (channel: Channel, placeId: string) => {
    const { onlyAt = {}, ...rest } = own;
    const { [channel]: _, ...others } = onlyAt;
    const next = placeId === "" ? others : { ...others, [channel]: placeId };
    onChange(Object.keys(next).length === 0 ? rest : { ...rest, onlyAt: next });
  };
  return (
    <fieldset className="border-rule grid gap-3 border-t pt-3 sm:col-span-2 sm:grid-cols-2">
      <legend className="sr-only">My part</legend>
      <p className="sm:col-span-2">
        <span className="font-semibold">My part</span>{" "}
        <span className="text-note text-soft">Yours alone: friends keep their own place, rig and promises.</span>
      </p>
      <SelectField label="Place" value={own.placeId} onChange={(e) => setPart({ placeId: e.target.value })}>
        {places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Rig" value={own.rigId} onChange={(e) => setPart({ rigId: e.target.value })}>
        {rigs.map((r) => (
          <option key={r.id} value={r.id}>
            {r.name}
          </option>
        ))}
      </SelectField>
      {channels.length > 1 ? (
        <fieldset className="sm:col-span-2">
          <legend className="text-note text-soft">Channels I shoot; only these are planned for me</legend>
          <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
            {channels.map((c) => (
              <label key={c} className="flex min-h-6 items-center gap-2">
                <input type="checkbox" checked={promised.includes(c)} onChange={(e) => promise(c, e.target.checked)} />
                {c}
              </label>
            ))}
          </div>
        </fieldset>
      ) : null}
      {places.length > 1 ? (
        <fieldset className="sm:col-span-2">
          <legend className="text-note text-soft">
            Channels shot at one place only; the plan then goes there for them
          </legend>
          <div className="mt-1 grid gap-x-5 gap-y-2 sm:grid-cols-3">
            {channels
              .filter((c) => promised.includes(c))
              .map((c) => (
                <SelectField key={c} label={c} value={own.onlyAt?.[c] ?? ""} onChange={(e) => bind(c, e.target.value)}>
                  <option value="">wherever the rig stands</option>
                  {places.map((p) => (
                    <option key={p.id} value={p.id}>
                      only at {p.name}
                    </option>
                  ))}
                </SelectField>
              ))}
          </div>
        </fieldset>
      ) : null}
    </fieldset>
  );
}
