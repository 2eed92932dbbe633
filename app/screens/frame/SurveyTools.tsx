import { useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import { counted, roomWords } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Progress } from "~/components/ui/Progress";
import type { KeptTiles, SurveyHere } from "~/desk/sky/surveys";
import type { Equatorial } from "~/core/sky";
import { surveyFaultWords } from "./fault-words";
import type { SurveyPicture } from "./use-survey";

/** What lies under the frame, for it to be kept. */
export interface FieldOfFrame {
  readonly centre: Equatorial<"icrs">;
  /** Half its diagonal, with room around it. */
  readonly radiusDeg: number;
}

/** Whose picture lies on the chart, as it asks to be named. */
export function SurveyCredit({ chosen }: { readonly chosen: SurveyHere | null }) {
  if (!chosen?.survey) return null;
  const { title, credit } = chosen.survey;
  return (
    <p className="bg-ground/75 text-note text-soft pointer-events-none absolute top-2 left-2 max-w-[70%] rounded-[4px] px-2 py-0.5">
      {credit === "" ? title : credit}
    </p>
  );
}

/** Which picture of the sky lies behind the chart, how bright and strong it is shown, and keeping it for where there is no network. */
export function SurveyTools({ picture, field }: { readonly picture: SurveyPicture; readonly field: FieldOfFrame }) {
  const { surveys, choice, choose, chosen, isComing, isSilent, again } = picture;
  if (surveys.length === 0) return null;
  const survey = chosen?.survey ?? null;
  return (
    <div className="no-print text-note mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <div className="w-60">
        <SelectField
          label="Picture of the sky"
          value={chosen ? choice.id : ""}
          onChange={(e) => choose({ ...choice, id: e.target.value })}
        >
          <option value="">none: drawn from catalogues</option>
          {surveys.map(({ id, survey: its }) => (
            <option key={id} value={id} disabled={its === null}>
              {its?.title ?? "a survey that cannot be shown"}
            </option>
          ))}
        </SelectField>
      </div>
      {survey ? (
        <>
          <Slider
            label="Brightness"
            value={choice.brightness}
            onChange={(brightness) => choose({ ...choice, brightness })}
          />
          <Slider label="Contrast" value={choice.contrast} onChange={(contrast) => choose({ ...choice, contrast })} />
          <KeepField picture={picture} field={field} />
        </>
      ) : null}
      <p className="text-soft w-full" role="status">
        {isSilent ? (
          <>
            The survey could not be asked for all of this field: what is missing is coarse or blank.{" "}
            <button type="button" className="underline underline-offset-4" onClick={again}>
              Ask again
            </button>
          </>
        ) : survey ? (
          `${survey.title}, ${survey.frame} tiles of orders ${survey.orderMin} to ${survey.orderMax}${chosen?.isSimulated ? ": stars and sizes are the catalogues’, all structure is invented" : ""}.${isComing ? " Finer tiles are on their way …" : ""} P takes it off and puts it back.`
        ) : (
          surveys.flatMap(({ refusal }) => (refusal ? [surveyFaultWords(refusal)] : [])).join(" ")
        )}
      </p>
    </div>
  );
}

function Slider({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}) {
  return (
    <label className="text-soft flex items-center gap-2">
      {label}
      <input
        type="range"
        min="-1"
        max="1"
        step="0.05"
        className="w-28"
        value={value}
        onChange={(e) => onChange(e.target.valueAsNumber)}
        onDoubleClick={() => onChange(0)}
      />
    </label>
  );
}

/** Fetches the frame's part of the sky to be kept in the browser. */
function KeepField({
  picture: { chosen, choice },
  field,
}: {
  readonly picture: SurveyPicture;
  readonly field: FieldOfFrame;
}) {
  const desk = useDesk();
  const [share, setShare] = useState<number | null>(null);
  const [said, setSaid] = useState("");
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const survey = chosen?.survey;
  if (!survey) return null;
  const keep = async () => {
    const mine = new AbortController();
    running.current = mine;
    setShare(0);
    setSaid("");
    try {
      const done = await desk.workers.survey.keep({ ...field, id: choice.id, survey }, mine.signal, setShare);
      const room = await desk.workers.survey.kept();
      setSaid(
        done.ok
          ? `This field is kept: ${counted(done.value, "tile")}. ${keptWords(room)}`
          : "The survey cannot be asked now; what had come is kept.",
      );
    } catch {
      setSaid(mine.signal.aborted ? "Stopped; what had come is kept." : "The field could not be kept.");
    } finally {
      setShare(null);
    }
  };
  if (share !== null)
    return <Progress words="Fetching this field’s tiles" share={share} onStop={() => running.current?.abort()} />;
  return (
    <span className="flex items-center gap-3">
      <Button onClick={() => void keep()}>Keep this field for nights without a network</Button>
      <span className="text-soft" role="status">
        {said}
      </span>
    </span>
  );
}

/** How much of the sky this browser keeps. */
const keptWords = ({ bytes, mostBytes }: KeptTiles): string =>
  `Pictures of the sky take ${roomWords(bytes)} here; at ${roomWords(mostBytes)} the oldest go.`;
