import { useDesk } from "~/at-desk";
import { FilePick } from "~/components/forms/FilePick";
import { fixed } from "~/components/numbers";
import type { KitFromExposure } from "~/core/ledger";
import { nearestKinds, takenFrom } from "~/desk/kit/start";
import type { TypedStart } from "./typed-start";

/** What was taken from an exposure, in words, and what it changes on the page. */
export interface Taken {
  readonly words: readonly string[];
  readonly warning: string | null;
  readonly change: Partial<TypedStart> & { readonly site?: KitFromExposure["site"] };
}

/** What one's own exposures fill in: nothing that they do not say. */
function takenOf(from: KitFromExposure): Taken {
  const kinds = nearestKinds(from);
  const values = {
    focalLengthMm: from.focalLengthMm,
    pixelPitchUm: from.pixelPitchUm,
    widthPx: from.widthPx,
    heightPx: from.heightPx,
  };
  const mine = Object.fromEntries(Object.entries(values).flatMap(([k, v]) => (v === null ? [] : [[k, String(v)]])));
  const {
    focalLengthMm: focal,
    pixelPitchUm: pitch,
    widthPx: w,
    heightPx: h,
    site,
    gain,
    cameraName,
    isColour,
    clock,
  } = from;
  const words = [
    focal === null
      ? ""
      : `focal length ${fixed(focal, focal < 100 ? 1 : 0)} mm, ${from.isFocalSolved ? "from its solution" : "as its header says, no solution in it"}`,
    pitch === null ? "" : `pixels of ${fixed(pitch, 2)} µm`,
    w === null || h === null ? "" : `${w} × ${h} px`,
    cameraName === null ? "" : `camera “${cameraName}”`,
    isColour === null ? "" : isColour ? "a colour sensor" : "a monochrome sensor",
    gain === null ? "" : `its gain setting ${gain}: what that is in e⁻/ADU the file does not say`,
    site === null
      ? ""
      : `place ${fixed(Math.abs(site.latitudeDeg), 2)}° ${site.latitudeDeg < 0 ? "S" : "N"}, ${fixed(Math.abs(site.longitudeDeg), 2)}° ${site.longitudeDeg < 0 ? "W" : "E"}`,
  ].filter((x) => x !== "");
  return {
    words,
    warning: clock === null ? null : clockWords(clock),
    change: {
      own: mine,
      ...(cameraName === null ? {} : { cameraName }),
      ...(isColour === null ? {} : { colour: isColour ? ("colour" as const) : ("mono" as const) }),
      ...(kinds.optics === null ? {} : { optics: kinds.optics, mount: "" }),
      ...(kinds.camera === null ? {} : { camera: kinds.camera }),
      ...(site === null ? {} : { site }),
    },
  };
}

function clockWords({ hours, by }: NonNullable<KitFromExposure["clock"]>): string {
  const off = `${Math.abs(hours)} h ${hours > 0 ? "ahead" : "behind"}`;
  return by === "sun"
    ? `By its own time the Sun was up when it was taken: the clock of the camera seems to be ${off}. Put it right, or every night is booked wrong.`
    : `It was written ${Math.abs(hours)} h ${hours > 0 ? "before" : "after"} the time it says: the camera’s clock, or this computer’s, seems to be ${off}.`;
}

/** A place to drop exposures of one's own: they say most of what the start asks. */
export function OwnExposure({
  taken,
  onTaken,
}: {
  readonly taken: Taken | null;
  readonly onTaken: (taken: Taken) => void;
}) {
  const desk = useDesk();
  return (
    <div className="mt-6 max-w-[52rem]">
      <FilePick
        label="Exposures of your own"
        words="Choose an exposure"
        isMany
        onFiles={async (files, signal, onProgress) => {
          const read = await desk.workers.files.read(files, signal, (done) => onProgress(done / files.length));
          const from = takenFrom(
            read,
            files.map((f) => f.lastModified),
          );
          if (from === null)
            return `${files[0].name}: no header that reads. FITS files and camera raw or JPEG with EXIF do.`;
          const next = takenOf(from);
          if (next.words.length === 0)
            return `${files[0].name}: its header says nothing about telescope, camera or place.`;
          onTaken(next);
        }}
      >
        <p className="text-soft max-w-[34rem]">
          Or drop an exposure of your own here: its header fills in what it knows. It is read in this browser and goes
          nowhere.
        </p>
      </FilePick>
      {taken ? (
        <div role="status" className="mt-2">
          <p>Taken from it: {taken.words.join("; ")}.</p>
          {taken.warning ? <p className="text-lamp mt-1">{taken.warning}</p> : null}
        </div>
      ) : null}
    </div>
  );
}
