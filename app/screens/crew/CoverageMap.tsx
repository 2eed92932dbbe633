import { Waiting } from "~/components/Waiting";
import { Suspense, useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { Await } from "react-router";
import { fixed, percent } from "~/components/numbers";
import { useTheme } from "~/components/use-theme";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { limitingSurfaceMag, type Channel } from "~/core/exposure";
import { weightAt } from "~/core/framing";
import type { CoverageView } from "~/desk/projects/coverage";
import type { Coverage, CoverageLayer } from "~/desk/sky/answers";
import { CoveringTable, FieldTable } from "./CoverageTables";
import { StepTable } from "./StepTable";
import { BANDS, drawCoverage, hoursWord, inkOf, scaleOf, type MapLines } from "./draw-coverage";
import { SavePicture } from "./SavePicture";

interface Props {
  readonly view: CoverageView;
  readonly members: Readonly<Record<string, string>>;
  readonly name: string;
  /** Rig and place that the hours are told for. */
  readonly here: string;
}

/** All frames of all members over one another: how deep the picture is where, in each channel, and where its depth will show a step. */
export function CoverageMap({ view, ...rest }: Props) {
  return (
    <Suspense fallback={<Waiting words="Laying the frames over one another …" heightPx={300} />}>
      <Await
        resolve={view.answer}
        errorElement={<p className="text-rust mt-6">What covers what could not be worked out.</p>}
      >
        {(answer: Coverage | null) =>
          answer && answer.layers.length > 0 ? <Map view={view} answer={answer} {...rest} /> : null
        }
      </Await>
    </Suspense>
  );
}

function Map({ view, answer, members, name, here }: Props & { readonly answer: Coverage }) {
  const [channel, setChannel] = useState<Channel>(answer.layers[0]!.channel);
  const layer = answer.layers.find((l) => l.channel === channel) ?? answer.layers[0]!;
  const depthOf = (hours: number): number | null => {
    const at = view.questions[layer.channel];
    return at && hours > 0 ? limitingSurfaceMag(at.question, hours, at.subSec) : null;
  };
  const [probe, setProbe] = useState<readonly [number, number]>([0, 0]);
  const who = (id: string) => members[id] ?? "someone";
  const lines: MapLines = {
    reference: view.reference,
    fields: view.fields.map((f) => ({ name: who(f.memberId), frames: f.frames })),
    common: answer.common,
  };
  const hoursHere = weightAt(layer.map, ...probe);
  const depth = depthOf(hoursHere);
  return (
    <Section title="How deep where" aside={`hours with ${here}, the target at its best`}>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="sr-only">Channel</legend>
          {answer.layers.map((l) => (
            <label key={l.channel} className="flex min-h-8 items-center gap-1.5">
              <input
                type="radio"
                name="coverage-channel"
                checked={l === layer}
                onChange={() => setChannel(l.channel)}
              />
              {l.channel}
            </label>
          ))}
        </fieldset>
        <SavePicture layer={layer} lines={lines} name={name} />
      </div>
      <div className="mt-2 grid gap-4 sm:grid-cols-[minmax(0,1fr)_13rem]">
        <div className="min-w-0">
          <Picture layer={layer} lines={lines} probe={probe} onProbe={setProbe} />
          <p className="mt-1" aria-live="polite">
            {hoursHere > 0
              ? `Here: ${hoursWord(hoursHere)}${depth === null ? "" : `, shows ${fixed(depth, 1)} mag/arcsec² at 3σ`}`
              : "Here: nothing was taken."}{" "}
            <span className="text-note text-faint">Under the pointer, or move with the arrow keys.</span>
          </p>
        </div>
        <Legend layer={layer} depthOf={depthOf} field={view.isCropped ? "the crop" : "the reference field"} />
      </div>
      <StepTable layer={layer} />
      <FieldTable view={view} answer={answer} who={who} />
      <CoveringTable view={view} layer={layer} who={who} />
      <p className="text-note text-soft mt-2">
        <Why title="How the map is made">
          <p>
            Every kept sub lies where its file&apos;s plate solution says, else where its panel is drawn, as large as
            its rig&apos;s field. Hours count as at the reference: by sky, rig and filter, direction and Moon; where
            frames overlap they add up, as the square of signal to noise does. Depth is told for an ideal stack: flats
            and gradients leave real ones 0.3 to 1 mag brighter. Noise that changes by more than 1.2 times along an edge
            is seen in a stretched picture, by more than 1.4 plainly; a brightness that was not matched shows sooner.
            What detail each frame holds is not in it.
          </p>
        </Why>
      </p>
    </Section>
  );
}

/** The map itself, with a probe moved by pointer or arrow keys. */
function Picture({
  layer,
  lines,
  probe,
  onProbe,
}: {
  readonly layer: CoverageLayer;
  readonly lines: MapLines;
  readonly probe: readonly [number, number];
  readonly onProbe: (at: readonly [number, number]) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(600);
  const theme = useTheme();
  useLayoutEffect(() => {
    const box = canvas.current?.parentElement;
    if (!box) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(240, box.clientWidth)));
    observer.observe(box);
    return () => observer.disconnect();
  }, []);
  const scale = scaleOf(layer, lines, width);
  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext("2d");
    if (!element || !context) return;
    const ratio = window.devicePixelRatio || 1;
    element.width = width * ratio;
    element.height = scale.heightPx * ratio;
    context.scale(ratio, ratio);
    drawCoverage(context, layer, lines, scale, inkOf(element), width);
    const [x, y] = scale.toPx(...probe);
    context.strokeStyle = inkOf(element).ink;
    context.lineWidth = 1.5;
    context.beginPath();
    context.arc(x, y, 5, 0, 2 * Math.PI);
    context.stroke();
  });
  const onMove = (e: PointerEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    onProbe(scale.fromPx(e.clientX - box.left, e.clientY - box.top));
  };
  const onKey = (e: KeyboardEvent) => {
    const step = 12 / scale.pxPerArcmin;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
    if (!by) return;
    e.preventDefault();
    onProbe([probe[0] + by[0]!, probe[1] + by[1]!]);
  };
  return (
    <div data-theme-turn={theme} className="border-rule overflow-hidden rounded-[10px] border">
      <canvas
        ref={canvas}
        role="img"
        tabIndex={0}
        aria-label={`Depth in ${layer.channel} over the field; the table below says it in numbers`}
        className="turns-to-ink block w-full touch-pan-y"
        style={{ height: scale.heightPx }}
        onPointerMove={onMove}
        onKeyDown={onKey}
      />
    </div>
  );
}

function Legend({
  layer,
  field,
  depthOf,
}: {
  readonly layer: CoverageLayer;
  /** What is judged, in words. */
  readonly field: string;
  readonly depthOf: (hours: number) => number | null;
}) {
  const { goalHours, areaDeg2, goalDeg2, wantedDeg2 } = layer;
  const emptyDeg2 = wantedDeg2 - areaDeg2;
  const list = useRef<HTMLUListElement>(null);
  const theme = useTheme();
  const [bands, setBands] = useState<readonly string[]>([]);
  useEffect(() => {
    if (list.current) setBands(inkOf(list.current).bands);
  }, [theme]);
  const from = (i: number) => BANDS[i]! * goalHours;
  return (
    <div>
      {goalHours > 0 ? (
        <>
          <p className="text-note text-soft">Goal: {hoursWord(goalHours)} everywhere</p>
          <ul ref={list} className="mt-1">
            {BANDS.map((_, i) => {
              const mag = depthOf(i === 0 ? from(1) : from(i));
              const words =
                i === 0
                  ? `less than ${hoursWord(from(1))}`
                  : i === BANDS.length - 1
                    ? `${hoursWord(from(i))} and more`
                    : `from ${hoursWord(from(i))}`;
              return (
                <li key={i} className="flex items-center gap-2 py-0.5">
                  <span
                    aria-hidden="true"
                    className="border-rule h-4 w-6 shrink-0 border"
                    style={{ background: bands[i] ?? "transparent" }}
                  />
                  <span className="flex-1">{words}</span>
                  <span className="text-note text-faint">{mag === null || i === 0 ? "" : fixed(mag, 1)}</span>
                </li>
              );
            })}
          </ul>
          <p className="text-note text-faint mt-1">right: mag/arcsec² at 3σ over 10″ × 10″</p>
          <p className="mt-2">
            {goalDeg2 > 0
              ? `${fixed(goalDeg2, 2)} of ${fixed(wantedDeg2, 2)} square degrees of ${field} are at the goal (${percent(goalDeg2 / wantedDeg2)}).`
              : `Nothing of the ${fixed(wantedDeg2, 2)} square degrees of ${field} is at the goal yet.`}
            {emptyDeg2 > 0.01 * wantedDeg2
              ? ` ${fixed(emptyDeg2, 2)} of them (${percent(emptyDeg2 / wantedDeg2)}) have nothing in ${layer.channel}.`
              : ""}
          </p>
        </>
      ) : (
        <p className="text-soft">
          No goal in {layer.channel}: all of it is drawn alike. {fixed(areaDeg2, 2)} square degrees are covered.
        </p>
      )}
      <ul className="text-note text-soft mt-2 space-y-1">
        <li>Thin lines: each one&apos;s frame, named at a corner.</li>
        <li>Thick line with teeth: a step that will show; the teeth point to the shallow or empty side.</li>
        <li>Dotted box: what all frames have in common.</li>
      </ul>
    </div>
  );
}
