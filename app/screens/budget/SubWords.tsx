import { temperature } from "~/components/measures";
import { fixed } from "~/components/numbers";
import { Why } from "~/components/ui/Why";
import type { SubAdvice, SubEffects, SubLimit } from "~/core/exposure";

const seconds = (s: number) => (!Number.isFinite(s) ? "none" : s < 10 ? `${fixed(s, 1)} s` : `${fixed(s)} s`);

const DECIDED: Readonly<Record<SubLimit, string>> = {
  overhead: "decided by overhead: shorter subs lose the clock to downloads and dithers",
  readNoise: "decided by read noise: shorter subs add noise",
  spoilt: "decided by spoilt subs: so many are lost that long ones cost too much",
  protectedStar: "decided by the stars that you protect",
  core: "decided by the bright core, until a short set takes it",
  mount: "decided by the unguided mount",
  sky: "decided by the sky, which fills the sensor",
  rotation: "decided by the field, which turns with a mount in altitude and azimuth",
};

/** Where the overhead and the share of lost subs come from. */
export interface TimeSources {
  /** Subs of this rig in the log that the share is learnt from; null = assumed. */
  readonly spoiltFrom: number | null;
  /** Gaps between files in the log; null = as the rig says. */
  readonly overheadFrom: number | null;
}

/** A sub length advised, what decides it, the range that is as good, and all that went in. */
export function SubWords({ advice, from }: { readonly advice: SubAdvice; readonly from: TimeSources }) {
  return (
    <p>
      <Why title={<span className="text-ink">{`${advice.subSec} s a sub`}</span>} className="font-semibold">
        <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
          <dt>Most by the clock</dt>
          <dd>{seconds(advice.bestSec)}</dd>
          <dt>As good to 2 % by the clock alone</dt>
          <dd>
            {seconds(advice.flatFromSec)} to {seconds(advice.flatToSec)}
          </dd>
          <dt>
            Lost with every sub,{" "}
            {from.overheadFrom === null ? "as the rig says" : `from ${from.overheadFrom} gaps in the log`}
          </dt>
          <dd>{fixed(advice.overheadSec, 1)} s</dd>
          <dt>Subs of 120 s spoilt, {from.spoiltFrom === null ? "assumed" : `from ${from.spoiltFrom} in the log`}</dt>
          <dd>{fixed(advice.spoiltPerSec * 120 * 100, 1)} %</dd>
          <dt>Sky on the pixel that decides</dt>
          <dd>{advice.skyEPerPxSec.toPrecision(3)} e⁻/s</dd>
          <dt>Dark current at {temperature(advice.sensorC)}</dt>
          <dd>{advice.darkEPerPxSec.toPrecision(2)} e⁻/s</dd>
          <dt>Longest the mount holds</dt>
          <dd>{seconds(advice.mountSec)}</dd>
          <dt>The sky takes 15 % of what a pixel holds from</dt>
          <dd>{seconds(advice.skySec)}</dd>
          {Number.isFinite(advice.rotationSec) ? (
            <>
              <dt>The turning field trails 1.5 px at the corners from</dt>
              <dd>{seconds(advice.rotationSec)}</dd>
            </>
          ) : null}
          {advice.coreSec !== null ? (
            <>
              <dt>The core clips from</dt>
              <dd>{seconds(advice.coreSec)}</dd>
            </>
          ) : null}
          {advice.starClippingSec !== null ? (
            <>
              <dt>A protected star clips from</dt>
              <dd>{seconds(advice.starClippingSec)}</dd>
            </>
          ) : null}
          <dt>Star width on the sensor</dt>
          <dd>{fixed(advice.fwhmPx, 1)} px</dd>
        </dl>
        <p className="text-note text-soft mt-2">
          What a clock hour brings: t/(t+o) · S·t/(S·t+R²) · e^(−h·t), o lost with every sub, S sky and dark, R read
          noise, h lost subs. The shortest usual length within 2 % of the best. V sky scaled into the band: about 20 %
          too bright for narrow bands under a dark sky. A core’s brightness is assumed at 16 mag/arcsec².
        </p>
      </Why>
      , {DECIDED[advice.decidedBy]}.
      {advice.asGood && advice.asGood.toSec > advice.asGood.fromSec
        ? ` ${seconds(advice.asGood.fromSec)} to ${seconds(advice.asGood.toSec)} are as good.`
        : ""}
    </p>
  );
}

/** What the chosen length does. */
export function EffectWords({
  sub,
  isShort,
  effects,
  clipped,
}: {
  readonly sub: string;
  /** A short set: judged by the stars it keeps, not by depth. */
  readonly isShort: boolean;
  readonly effects: SubEffects;
  readonly clipped: number | null;
}) {
  const noise = 100 * effects.readNoiseShare;
  if (isShort)
    return (
      <p className="text-note">
        At {sub} s stars fainter than magnitude {fixed(effects.clippedMag, 1)} keep their colour: that is what a short
        set is for, not depth.
      </p>
    );
  return (
    <p className="text-note">
      At {sub} s a clock hour brings {Math.round(100 * effects.clockYield)} % of an ideal one, read noise adds{" "}
      {fixed(noise, noise < 10 ? 1 : 0)} % to the noise, and stars brighter than magnitude{" "}
      {fixed(effects.clippedMag, 1)} clip{clipped === null ? "" : `: ${clipped} of the catalogue’s in the frame`}.
    </p>
  );
}
