import { useState } from "react";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";

/** The name friends see beside one's hours. */
export function OwnName({ name, onSave }: { readonly name: string; readonly onSave: (name: string) => void }) {
  const [draft, setDraft] = useState(name);
  const isRight = draft.trim() !== "" && draft.length <= 120;
  return (
    <div className="flex items-end gap-2">
      <div className="flex-1">
        <Field
          label="Your name"
          value={draft}
          onChange={(e) => setDraft(e.target.value)}
          fault={isRight ? undefined : "Give a name, 120 letters at most."}
        />
      </div>
      <Button disabled={!isRight || draft.trim() === name} onClick={() => onSave(draft.trim())}>
        Save name
      </Button>
    </div>
  );
}
