import type { KitPresets } from "~/core/exposure";
import { Choices } from "./Choices";
import { SkyPicture } from "./KindPicture";

/** A sky by the look of it: the brightness of its kind, mag/arcsec², as a text. */
export function SkyChooser({
  presets,
  chosen,
  onChoose,
}: {
  readonly presets: KitPresets;
  readonly chosen: string;
  readonly onChoose: (magPerArcsec2: string) => void;
}) {
  return (
    <Choices
      label="Sky"
      kinds={presets.skies.map((s) => ({ ...s, id: String(s.magPerArcsec2) }))}
      chosen={chosen}
      picture={SkyPicture}
      onChoose={onChoose}
    />
  );
}
