import { temperatureGap } from "~/components/measures";
import { fixed, signed } from "~/components/numbers";
import { focusMoveWords } from "~/components/words/focus-words";
import { criticalFocusZoneUm, focusShiftMm, type Channel, type Filter } from "~/core/exposure";
import type { FocusSlope } from "~/core/live";
import type { FocusMove } from "~/core/ledger";
import { Why } from "~/components/ui/Why";

/** How filters move the focus back, how exactly it must be met, and which do not go into the wheel. */
export function BackFocus({
  focalRatio,
  pixelScaleArcsecPerPx,
  diffractionArcsec,
  filters,
  slotMm,
  moves,
  slope,
}: {
  readonly focalRatio: number;
  readonly pixelScaleArcsecPerPx: number;
  readonly diffractionArcsec: number;
  readonly filters: readonly Filter[];
  /** Thickest filter the wheel takes; 0 = not known. */
  readonly slotMm: number;
  /** What the log's subs show of the focuser. */
  readonly moves: readonly ({ readonly from: Channel; readonly to: Channel } & FocusMove)[];
  /** How the focuser moves with the air, as its owner wrote it down; null = too little to tell. */
  readonly slope: FocusSlope | null;
}) {
  const glass = filters.filter((f) => (f.thicknessMm ?? 0) > 0);
  const thick = glass.map((f) => f.thicknessMm ?? 0);
  const isUneven = thick.length > 0 && Math.max(...thick) - Math.min(...thick) > 0.05;
  const seeing = 3; // an ordinary night, for the advice on sampling only
  const samples = Math.hypot(seeing, diffractionArcsec) / pixelScaleArcsecPerPx;
  return (
    <div className="mt-4">
      <h3 className="text-section text-soft font-serif">Back focus and sampling</h3>
      {glass.length === 0 ? (
        <p className="text-soft">No filter of this rig has a thickness yet: enter it under Filters.</p>
      ) : (
        <ul>
          {glass.map((f) => (
            <li key={f.name} className="border-rule border-t py-1">
              <div className="flex justify-between gap-3">
                <span>{f.name}</span>
                <span>+{fixed(focusShiftMm(f.thicknessMm ?? 0, focalRatio), 2)} mm</span>
              </div>
              {slotMm > 0 && (f.thicknessMm ?? 0) > slotMm ? (
                <p className="text-rust">
                  {f.thicknessMm} mm thick: it does not go into a slot of {slotMm} mm.
                </p>
              ) : null}
            </li>
          ))}
        </ul>
      )}
      {isUneven ? <p className="text-rust">Not of one thickness: each wants its own focus.</p> : null}
      {moves.length > 0 ? (
        <>
          <p className="mt-2">
            <Why title="As your subs show it">
              <p>
                Where the focuser stood before and after each change of filter, by the headers of your files, within two
                hours of one night. What the cold moves in one direction falls out where both directions were measured.
                It stands on the sheet at each change.
              </p>
            </Why>
          </p>
          <ul>
            {moves.map((m) => (
              <li key={m.to} className="border-rule border-t py-1">
                {m.from} to {m.to}: {focusMoveWords(m)}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {slope ? (
        <p className="mt-1">
          <Why title={`With the air: ${signed(slope.stepsPerC, 1)} steps for each °C`}>
            <p>
              By {slope.moves} moves over {temperatureGap(slope.overC, 1)} in all, from one focus to the next, as you
              wrote air and position down beside the mount. Filters changed between spoil a move; more of them make it
              surer.
            </p>
          </Why>
        </p>
      ) : null}
      <p className="text-soft mt-1">
        <Why title={`Focus is kept within ${fixed(criticalFocusZoneUm(focalRatio))} µm`}>
          <p>
            A filter between corrector and sensor moves the focus back by t (1 − 1/n), about a third of its thickness (n
            = 1.52; marginal ray at f/{fixed(focalRatio, 1)}): add that much spacing. The zone is 4.88 λ N², full width
            at 550 nm, by diffraction alone; seeing usually allows more.
          </p>
        </Why>
        .
      </p>
      <p className="text-soft">
        <Why title={`${fixed(samples, 1)} pixels across a star`}>
          <p>
            At 3″ of seeing with this aperture and scale; 2 to 3 are advised. Wide fields are undersampled by choice:
            dithering and drizzle give some of it back.
          </p>
        </Why>
        {samples < 1.5 ? ": undersampled." : samples > 4 ? ": oversampled, binning loses nothing." : "."}
      </p>
    </div>
  );
}
