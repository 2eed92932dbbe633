import { DraftMark, useFormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { useState } from "react";
import { Form } from "react-router";
import { CHANNELS, CHANNEL_FACTS, type Channel, type Filter } from "~/core/exposure";
import { FILTER_NUMBERS } from "./filter-form";
import type { Faults } from "~/components/forms/form-numbers";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";

/** One filter as a line of boxes; a new one starts from the usual values of its channel. */
export function FilterRow({
  id,
  baseRev,
  filter,
  faults,
  isInUse,
  onRemove,
}: {
  readonly id: string;
  readonly baseRev: string;
  readonly filter: Filter | null;
  readonly faults: Faults;
  readonly isInUse: boolean;
  readonly onRemove?: () => void;
}) {
  const start = useFormStart();
  const [base] = useState(start.text("baseRev", baseRev)); // what was on the page when typing began
  const typed = start.text("channel", filter?.channel ?? "Ha");
  const typedChannel = CHANNELS.find((c) => c === typed) ?? "Ha";
  const [channel, setChannel] = useState<Channel>(typedChannel);
  // Numbers typed before belong to the channel they were typed for.
  const text = channel === typedChannel ? start.text : (_: string, kept: string) => kept;
  const usual = CHANNEL_FACTS[channel];
  const thicknessMm = filter?.thicknessMm ?? 0;
  const initial =
    filter && filter.channel === channel
      ? { ...filter, thicknessMm }
      : {
          centreNm: usual.centreNm,
          bandwidthNm: usual.bandwidthNm,
          transmission: filter?.transmission ?? 0.9,
          thicknessMm,
        };
  return (
    <Form
      method="post"
      className="grid grid-cols-2 items-start gap-3 py-1 md:grid-cols-[1.4fr_0.9fr_0.8fr_0.8fr_0.8fr_0.7fr_8.5rem]"
    >
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="baseRev" value={base} />
      <DraftMark />
      <Field
        label="Name in its files"
        name="name"
        defaultValue={start.text("name", filter?.name ?? "")}
        fault={faults["name"]}
      />
      <SelectField
        label="Channel"
        name="channel"
        value={channel}
        onChange={(e) => setChannel(e.target.value as Channel)}
        fault={faults["channel"]}
      >
        {CHANNELS.map((c) => (
          <option key={c} value={c}>
            {c}
          </option>
        ))}
      </SelectField>
      {FILTER_NUMBERS.map((s) => (
        <Field
          key={`${s.name} ${channel}`}
          label={s.label}
          unit={s.unit}
          name={s.name}
          inputMode="decimal"
          defaultValue={text(s.name, String(initial[s.name]))}
          fault={faults[s.name]}
        />
      ))}
      <div className="flex gap-2 pt-6">
        <SaveButton look="quiet" words={filter ? "Save" : "Add"} />
        {filter && !isInUse && onRemove ? (
          <Button look="plain" onClick={onRemove} aria-label={`Delete ${filter.name}`}>
            Delete
          </Button>
        ) : null}
      </div>
    </Form>
  );
}
