import { useDeferredValue, useEffect, useMemo, useRef } from "react";
import { fixed } from "~/components/numbers";
import type { ObjectLight, SubQuestion } from "~/core/exposure";
import { formatSpan } from "~/core/notation";
import { stackedPictures, type StackedPictures } from "~/core/observatory";
import { HOUR_MS } from "~/core/time";

/** An object as it is drawn: its ellipse and its faint light. */
export interface ShownObject {
  readonly light: ObjectLight;
  readonly majorArcmin: number;
  readonly minorArcmin: number;
  readonly positionAngleDeg: number;
  /** The element that its hours are reckoned by. */
  readonly pxArcsec: number;
}

/** Hours, and what they are called. */
interface Stage {
  readonly word: string;
  readonly hours: number;
}

/** All that the pictures follow from. */
interface Asked {
  readonly question: SubQuestion;
  readonly subSec: number;
  readonly object: ShownObject;
  readonly stages: readonly Stage[];
  readonly shot: readonly Stage[];
}

const SIDE_PX = 128;

/** One picture of a row, grey in grey; red alone in the field. */
function Picture({
  of,
  index,
  words,
}: {
  readonly of: StackedPictures;
  readonly index: number;
  readonly words: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const { sidePx, pictures } = of;
    const image = context.createImageData(sidePx, sidePx);
    pictures[index]!.forEach((grey, i) => image.data.set([grey, grey, grey, 255], 4 * i));
    context.putImageData(image, 0, 0);
  }, [of, index]);
  return (
    <div className="night-picture">
      <canvas
        ref={canvas}
        width={of.sidePx}
        height={of.sidePx}
        role="img"
        aria-label={words}
        className="block w-full"
      />
    </div>
  );
}

/** "2 h 30", of hours. */
const hoursWords = (hours: number): string => formatSpan(hours * HOUR_MS);

/** The same object after more and more hours, by the model that frames are made by; and the panels of a mosaic as deep as they are. */
export function WhatItShows({
  object,
  question,
  subSec,
  stages,
  panels,
}: {
  readonly object: ShownObject;
  readonly question: SubQuestion;
  readonly subSec: number;
  readonly stages: readonly Stage[];
  /** Of a mosaic: hours that count, by panel; empty for one panel. */
  readonly panels: readonly Stage[];
}) {
  // A page that is typed into hands over the same again and again: pictures are made anew when something in them changes, and after the keys.
  const shot = panels.filter((p) => p.hours > 0);
  const asked = useDeferredValue(JSON.stringify({ question, subSec, object, stages, shot }));
  const { drawn, byPanel, shown } = useMemo(() => {
    const at = JSON.parse(asked) as Asked;
    const of = (list: Asked["stages"]) =>
      stackedPictures(
        { question: at.question, subSec: at.subSec, ...at.object },
        list.map((s) => s.hours),
        SIDE_PX,
      );
    return { drawn: of(at.stages), byPanel: at.shot.length > 0 ? of(at.shot) : null, shown: at };
  }, [asked]);
  const row = (of: StackedPictures, list: readonly Stage[], columns: string) => (
    <ul className={`mt-2 grid gap-3 ${columns}`}>
      {list.map((s, i) => (
        <li key={s.word}>
          <Picture of={of} index={i} words={`Simulated: the object after ${hoursWords(s.hours)}`} />
          <p className="text-note mt-1">
            {s.word}, {hoursWords(s.hours)}
          </p>
          <p className="text-note text-soft">edge at {fixed(of.edgeSnr[i]!, of.edgeSnr[i]! < 10 ? 1 : 0)} σ a pixel</p>
        </li>
      ))}
    </ul>
  );
  return (
    <section aria-label="What it will show" className="mt-4">
      <h3 className="text-title">What it will show</h3>
      {row(drawn, shown.stages, "grid-cols-2 sm:grid-cols-4")}
      {byPanel ? (
        <>
          <p className="mt-3">The panels as deep as they are now, the same object in each to compare:</p>
          {row(byPanel, shown.shot, "grid-cols-3 sm:grid-cols-6")}
        </>
      ) : null}
      <p className="text-note text-soft mt-2 max-w-[75ch]">
        Simulated:{" "}
        {drawn.isWhole
          ? "the object as a smooth patch of its catalogue brightness"
          : `a round piece of the object’s faint part, ${fixed((0.6 * SIDE_PX * object.pxArcsec) / 60, 0)}′ across,`}{" "}
        on an even sky, a pixel {fixed(object.pxArcsec, 1)}″ a side as its hours are reckoned by; all of a row between
        the same black and white. Left out: stars, detail, gradients, and what processing makes of it.
      </p>
    </section>
  );
}
