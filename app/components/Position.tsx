import { formatDeclination, formatRightAscension, spokenDeclination, spokenRightAscension } from "~/core/notation";

/** What is written for the eye and said otherwise to who listens; what is marked and copied is what is written. */
function Said({ written, spoken }: { readonly written: string; readonly spoken: string }) {
  return (
    <>
      <span aria-hidden="true">{written}</span>
      <span className="sr-only select-none">{spoken}</span>
    </>
  );
}

/** "20h 50m 33.4s". */
export const RightAscension = ({ deg, digits = 1 }: { readonly deg: number; readonly digits?: number }) => (
  <Said written={formatRightAscension(deg, digits)} spoken={spokenRightAscension(deg, digits)} />
);

/** "+31° 10′ 03″". */
export const Declination = ({ deg, digits = 0 }: { readonly deg: number; readonly digits?: number }) => (
  <Said written={formatDeclination(deg, digits)} spoken={spokenDeclination(deg, digits)} />
);
