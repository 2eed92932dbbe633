import { fixed } from "~/components/numbers";
import { useState } from "react";
import { blurOf, CHANNEL_FACTS, detailVerdict, type Channel, type DetailVerdict } from "~/core/exposure";
import type { Optics } from "~/core/framing";
import { parseNumber } from "~/core/notation";
import { Field } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";

const GUIDING_ARCSEC = 0.5; // per axis: a good amateur mount; common practice, no source

const VERDICTS: Readonly<Record<DetailVerdict, string>> = {
  apart: "Comes out plainly apart.",
  touching: "Comes out as two that touch.",
  elongated: "Comes out as one elongated spot.",
  one: "Melts into one.",
};

const LIMITS = {
  seeing: "the air decides: a steadier night or a higher target helps, another telescope does not",
  optics: "the aperture decides: only a larger one helps",
  guiding: "guiding decides",
  pixels: "the pixels decide: a longer focal length, or dithering and drizzle, helps",
} as const;

/** Whether a detail of a given size can be told apart with this rig, here, at the target's best altitude. */
export function DetailPanel({
  optics,
  rigName,
  channel,
  seeingArcsec,
  altitudeDeg,
}: {
  readonly optics: Optics;
  readonly rigName: string;
  readonly channel: Channel;
  readonly seeingArcsec: number;
  readonly altitudeDeg: number;
}) {
  const [text, setText] = useState("6");
  const detail = parseNumber(text);
  const isRight = detail !== null && detail > 0 && detail <= 3600;
  const blur = blurOf({
    zenithSeeingArcsec: seeingArcsec,
    altitudeDeg,
    wavelengthNm: CHANNEL_FACTS[channel].centreNm,
    diffractionArcsecAt550: optics.diffractionArcsec,
    guidingRmsPerAxisArcsec: GUIDING_ARCSEC,
    pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
  });
  return (
    <Panel title="Is a detail resolvable?" aside={rigName}>
      <Field
        label="Detail, a pair for example"
        unit="″ apart"
        inputMode="decimal"
        value={text}
        onChange={(e) => setText(e.target.value)}
        fault={isRight ? undefined : "More than 0, up to 3600 ″."}
      />
      <p className="mt-2 font-semibold" aria-live="polite">
        {isRight ? VERDICTS[detailVerdict(detail, blur)] : " "}
      </p>
      <p className="text-soft">
        <Why title={`Limit ${fixed(blur.limitArcsec, 1)}″ at ${fixed(altitudeDeg)}°`}>
          <p>
            Air {fixed(blur.seeingArcsec, 1)}″ at that altitude in {channel} (usual seeing {fixed(seeingArcsec, 1)}″ ×
            X^0.6), optics {fixed(blur.opticsArcsec, 1)}″, guiding {fixed(blur.guidingArcsec, 1)}″ ({GUIDING_ARCSEC}″
            rms per axis assumed) in quadrature: {fixed(blur.totalArcsec, 1)}″. Pixels of{" "}
            {fixed(blur.pixelScaleArcsecPerPx, 2)}″: {fixed(blur.samples, 1)} across it, 2 to 3 are advised.
          </p>
          <p className="mt-2">
            Equal points; a faint one beside a bright one needs more. Focus and tilt come on top. Under 20° of altitude
            the model flatters.
          </p>
        </Why>
        : {LIMITS[blur.limitedBy]}.
      </p>
    </Panel>
  );
}
