import { fixed } from "~/components/numbers";
import { opticsOf, type Optics } from "~/core/framing";
import { numberIn } from "~/components/forms/form-numbers";
import { OPTICS_FIELDS, SENSOR_FIELDS } from "~/core/records";
import { apertureText } from "~/components/kit/typed-kit";
import { Why } from "~/components/ui/Why";

const NEEDED = [
  "focalLengthMm",
  "reducerFactor",
  "apertureMm",
  "obstruction",
  "widthPx",
  "heightPx",
  "pixelPitchUm",
  "binning",
] as const;

const FIELDS = { ...OPTICS_FIELDS, ...SENSOR_FIELDS };

/** Optics of what is typed so far; null while a number is missing or cannot be. */
function opticsOfTexts(texts: Readonly<Record<string, string>>): Optics | null {
  const textOf = (k: (typeof NEEDED)[number]) =>
    k === "apertureMm" ? apertureText(texts[k] ?? "", texts["focalLengthMm"] ?? "") : (texts[k] ?? "");
  const n = Object.fromEntries(NEEDED.map((k) => [k, numberIn(FIELDS[k], textOf(k))])) as Record<
    (typeof NEEDED)[number],
    number | null
  >;
  if (NEEDED.some((k) => n[k] === null || (k !== "obstruction" && n[k] <= 0)) || n.obstruction! >= 1) return null;
  return opticsOf({
    focalLengthMm: n.focalLengthMm!,
    reducerFactor: n.reducerFactor!,
    apertureMm: n.apertureMm!,
    obstruction: n.obstruction!,
    sensor: { widthPx: n.widthPx!, heightPx: n.heightPx!, pixelPitchUm: n.pixelPitchUm!, binning: n.binning! },
  });
}

/** Both sides of a field in one unit. */
const sides = (widthDeg: number, heightDeg: number) =>
  widthDeg >= 2
    ? `${fixed(widthDeg, 2)}° × ${fixed(heightDeg, 2)}°`
    : `${fixed(widthDeg * 60, 1)}′ × ${fixed(heightDeg * 60, 1)}′`;

/** Field and scale of a rig, with the Moon beside the frame for a feeling of size. */
export function RigView({ texts }: { readonly texts: Readonly<Record<string, string>> }) {
  const o = opticsOfTexts(texts);
  if (!o) return <p className="text-soft">Focal length, aperture and sensor give the field of view.</p>;
  const scale = 200 / Math.max(o.fieldWidthDeg, o.fieldHeightDeg * 1.5);
  const [w, h] = [o.fieldWidthDeg * scale, o.fieldHeightDeg * scale];
  return (
    <>
      <svg
        viewBox="0 0 240 160"
        className="w-full"
        role="img"
        aria-label={`Frame ${sides(o.fieldWidthDeg, o.fieldHeightDeg)} beside the Moon`}
      >
        <rect x={120 - w / 2} y={80 - h / 2} width={w} height={h} fill="none" stroke="var(--lamp)" strokeWidth="1.5" />
        <circle cx="120" cy="80" r={Math.min(110, 0.26 * scale)} fill="var(--moonlit)" />
        <text
          x="120"
          y={Math.min(156, 80 + Math.min(110, 0.26 * scale) + 13)}
          fontSize="10"
          textAnchor="middle"
          fill="var(--faint)"
        >
          the Moon
        </text>
      </svg>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        <dt className="text-soft">Field</dt>
        <dd className="font-semibold" data-testid="field">
          {sides(o.fieldWidthDeg, o.fieldHeightDeg)}
        </dd>
        <dt className="text-soft">Scale</dt>
        <dd>
          <Why title={`${fixed(o.pixelScaleArcsecPerPx, 2)} ″/px`}>
            <p>
              206.265 × pixel size × binning ÷ focal length. On the axis; the maker&apos;s reducer factor holds at its
              back focus only.
            </p>
          </Why>
        </dd>
        <dt className="text-soft">Focal length</dt>
        <dd>
          {fixed(o.focalLengthMm)} mm, f/{fixed(o.focalRatio, 1)}
        </dd>
        <dt className="text-soft">Diffraction</dt>
        <dd>{fixed(o.diffractionArcsec, 1)}″ at 550 nm</dd>
        <dt className="text-soft">Light</dt>
        <dd>{fixed(o.apertureAreaM2 * 1e4)} cm²</dd>
      </dl>
    </>
  );
}
