import { RestoredNote, textDraft, useDraftState } from "~/components/forms/drafts";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";

/** The name friends see beside one's hours. */
export function OwnName({ name, onSave }: { readonly name: string; readonly onSave: (name: string) => void }) {
  const {
    value: draft,
    set,
    discard,
    isRestored,
  } = useDraftState({ name: "own name", title: "your name" }, name, textDraft);
  const isRight = draft.trim() !== "" && draft.length <= 120;
  return (
    <div className="flex flex-wrap items-end gap-2">
      {isRestored ? <RestoredNote onDiscard={discard} /> : null}
      <div className="flex-1">
        <Field
          label="Your name"
          value={draft}
          onChange={(e) => set(e.target.value)}
          fault={isRight ? undefined : "Give a name, 120 letters at most."}
        />
      </div>
      <Button disabled={!isRight || draft.trim() === name} onClick={() => void onSave(draft.trim())}>
        Save name
      </Button>
    </div>
  );
}
