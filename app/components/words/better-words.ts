import { counted } from "~/components/numbers";

/** What would make answers better, of which place or rig, and how many nights of it are left. */
interface Better {
  readonly what: "skyline" | "sky" | "camera" | "chance" | "nights" | "project";
  readonly id: string;
  readonly left: number;
}

/** What to do, what it makes better, and where. */
export function betterWords({ what, id, left }: Better): {
  readonly to: string;
  readonly act: string;
  readonly better: string;
} {
  switch (what) {
    case "project":
      return { to: "/targets", act: "Begin a picture", better: "then nights are planned and weighed for it" };
    case "skyline":
      return {
        to: `/kit/places/${id}`,
        act: "Draw your skyline",
        better: "then hours behind roofs and trees stop counting",
      };
    case "camera":
      return {
        to: `/kit/rigs/${id}`,
        act: "Enter your camera’s own noise and gain",
        better: "then sub lengths and hours are its own, not those of its class",
      };
    case "sky":
      return {
        to: `/kit/places/${id}`,
        act: "Measure your sky",
        better: "a sky by its look is good to half a magnitude: hours to a factor of two",
      };
    case "chance":
      return {
        to: `/kit/places/${id}`,
        act: "Say how often it is clear",
        better: "then the nights a picture takes are those of your climate; the log corrects them",
      };
    case "nights":
      return {
        to: "/log",
        act: `Log ${left === 3 ? "three nights" : counted(left, "more night")}`,
        better: "then overheads, lost subs and the forecasts to trust are learnt",
      };
  }
}
