import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";

/** Which of a project's frames is looked at, and which is shot. A project with one frame only offers another. */
export function FrameChoice({
  frames,
  current,
  shot,
  title,
  onTitle,
  onChoose,
  onAnother,
  onShoot,
}: {
  readonly frames: readonly { readonly id: string; readonly title: string; readonly number: number }[];
  readonly current: string;
  readonly shot: string;
  readonly title: string;
  readonly onTitle: (title: string) => void;
  readonly onChoose: (id: string) => void;
  readonly onAnother: () => void;
  readonly onShoot: () => void;
}) {
  const another = (
    <button type="button" className="text-note text-soft min-h-6 underline underline-offset-4" onClick={onAnother}>
      Another frame for this project
    </button>
  );
  if (frames.length === 1) return <div className="no-print flex justify-end">{another}</div>;
  return (
    <div className="no-print flex flex-wrap items-end gap-3">
      <div className="min-w-40 flex-1">
        <SelectField label="Frame" value={current} onChange={(e) => onChoose(e.target.value)}>
          {frames.map((f) => (
            <option key={f.id} value={f.id}>
              {f.title === "" ? `Frame ${f.number}` : f.title}
              {f.id === shot ? ", shot" : ""}
            </option>
          ))}
        </SelectField>
      </div>
      <div className="min-w-40 flex-1">
        <Field label="Its name" value={title} maxLength={120} onChange={(e) => onTitle(e.target.value)} />
      </div>
      {current === shot ? (
        <p className="text-soft pb-2">This one is planned and shot.</p>
      ) : (
        <Button onClick={onShoot}>Shoot this one</Button>
      )}
      <div className="pb-2">{another}</div>
    </div>
  );
}
