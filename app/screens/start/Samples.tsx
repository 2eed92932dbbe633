import { Button } from "~/components/ui/Button";
import { Section } from "~/components/ui/Panel";
import type { SampleId } from "~/desk/records/join";

const SAMPLES: readonly { readonly id: SampleId; readonly title: string; readonly words: string }[] = [
  {
    id: "gardens",
    title: "Three gardens",
    words:
      "Ines, Tomasz and Wren share a faint shell; a mosaic of two by three, and a galaxy that hardly clears the roof.",
  },
  {
    id: "south",
    title: "A lens on a tracker, far south",
    words:
      "Marama begins with a photo camera and a 135 mm lens behind the house, and has logged her first four nights.",
  },
  {
    id: "pair",
    title: "Two city balconies",
    words: "Odile and Piet shoot through 3 nm filters from two cities and share the channels of one nebula.",
  },
];

/** Invented groups to look around in, before anything of one's own is entered. */
export function Samples({ isBusy, onOpen }: { readonly isBusy: boolean; readonly onOpen: (id: SampleId) => void }) {
  return (
    <Section title="Or look around first" aside="invented people and places; delete them under Kit, Data in and out">
      <ul className="grid gap-x-8 gap-y-3 md:grid-cols-3">
        {SAMPLES.map((s) => (
          <li key={s.id} className="border-rule border-t pt-2">
            <h3 className="font-semibold">{s.title}</h3>
            <p className="text-soft my-1">{s.words}</p>
            <Button disabled={isBusy} aria-label={`Open it: ${s.title}`} onClick={() => onOpen(s.id)}>
              Open it
            </Button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
