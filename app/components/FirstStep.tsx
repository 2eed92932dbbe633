import type { ReactNode } from "react";
import { Link } from "react-router";
import { buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";

const STEPS = {
  place: {
    why: "It begins with four answers: where you observe from, through what, with which camera, under which sky.",
    to: "/start",
    act: "Say where you observe from",
  },
  target: { why: "It begins with a target that suits your sky and your rig.", to: "/targets", act: "Choose a target" },
  gaps: {
    why: "None of your projects can be planned yet: each says what it lacks.",
    to: "/projects",
    act: "See what they lack",
  },
} as const;

/** A page of somebody who has nothing to plan yet: what will stand here, and the next step. */
export function FirstStepPage({
  title,
  children,
  step,
  search,
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly step: keyof typeof STEPS;
  readonly search: string;
}) {
  const { why, to, act } = STEPS[step];
  return (
    <Empty>
      <h1 className="text-headline text-ink">{title}</h1>
      <p className="my-3">
        {children} {why}
      </p>
      <Link to={`${to}${search}`} className={buttonLook("main")}>
        {act}
      </Link>
    </Empty>
  );
}
