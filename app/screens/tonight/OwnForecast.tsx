import { useDesk } from "~/at-desk";
import { useState } from "react";
import { RestoredNote, textDraft, useDraftState } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { MAX_FORECAST_BYTES } from "~/core/formats";
import type { UtcMs } from "~/core/time";
import { forecastFaultWords } from "./forecast-words";
import { Button } from "~/components/ui/Button";
import { TextField } from "~/components/ui/Field";
import { FilePick } from "~/components/forms/FilePick";
import { StorageRefusal } from "~/components/StorageRefusal";
import type { TonightAnswer, TonightIntent } from "./intents";

/** A forecast of one's own: a file, or a few typed lines. */
export function OwnForecast({
  at,
}: {
  readonly at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number };
}) {
  const desk = useDesk();
  const { act, answer, refusal, isBusy } = useAct<TonightIntent, TonightAnswer>();
  const {
    value: text,
    set: setText,
    discard,
    isRestored,
  } = useDraftState({ name: "typed forecast", title: "a forecast of your own" }, "", textDraft);
  const [wasTyped] = useState(isRestored);
  const [isOneMore, setOneMore] = useState(false);
  return (
    <details open={wasTyped} className="border-rule mt-3 border-t pt-2">
      <summary className="text-soft hover:text-ink min-h-6 cursor-pointer">A forecast of your own</summary>
      <form
        className="mt-2 grid max-w-[60ch] gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void act({ act: "typed", text, isOneMore });
        }}
      >
        {isRestored && !answer?.said ? <RestoredNote onDiscard={discard} /> : null}
        <TextField
          label="Hours, cloud, gusts"
          rows={3}
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder={"18-23 20\n23-3 80 35 rain 40"}
          fault={answer?.fault}
          hint="From–to by your clock, cloud in %, gusts in km/h and “rain 40” in % if you know them; a line a stretch."
          spellCheck={false}
        />
        <label className="flex min-h-6 items-center gap-2">
          <input type="checkbox" checked={isOneMore} onChange={(e) => setOneMore(e.target.checked)} />
          Count it as one more source, beside those typed before; else it stands instead of the others for its hours
        </label>
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit" disabled={isBusy}>
            Use these lines
          </Button>
          <FilePick
            label="Forecast file"
            words="or read a forecast file"
            types={{ "application/json": [".json"] }}
            mostBytes={MAX_FORECAST_BYTES}
            look="plain"
            onFiles={async ([file], signal) => {
              const read = await desk.workers.files.forecast(file, at, signal);
              if (!read.ok) return `${file.name}: ${forecastFaultWords(read.error)}.`;
              await act({ act: "forecastFile", read: read.value, isOneMore });
              return undefined;
            }}
          />
        </div>
        <StorageRefusal fault={refusal} />
        <p className="text-note text-soft" aria-live="polite">
          {answer?.said ?? ""}
        </p>
      </form>
    </details>
  );
}
