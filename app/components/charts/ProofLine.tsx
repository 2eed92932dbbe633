import { formatMinutes } from "~/core/notation";
import type { SeasonPlan } from "~/core/season";
import { fixed } from "~/components/numbers";
import { Why } from "~/components/ui/Why";

/** What a plan is worth against the most that any could be worth: one hairline with two marks that come together. */
export function ProofLine({ plan }: { readonly plan: SeasonPlan }) {
  const { value, bound, gap, stage } = plan;
  if (bound <= 0) return null;
  const isDone = stage === "settled" || stage === "whole";
  // The last fifth of the line is the part that matters: the rest is common to all plans.
  const at = (x: number) => 4 + 92 * Math.max(0, 1 - Math.min(1, (1 - x / bound) / 0.2));
  const within = fixed(100 * gap, gap < 0.0095 ? 1 : 0);
  return (
    <div>
      <svg viewBox="0 0 100 6" className="block h-3 w-full" preserveAspectRatio="none" aria-hidden="true">
        <line x1="0" x2="100" y1="3" y2="3" stroke="var(--rule)" vectorEffect="non-scaling-stroke" />
        <line
          x1={at(value)}
          x2={at(value)}
          y1="0.5"
          y2="5.5"
          stroke="var(--lamp)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
        <line x1={at(bound)} x2={at(bound)} y1="0.5" y2="5.5" stroke="var(--ink)" vectorEffect="non-scaling-stroke" />
      </svg>
      <p className="text-note text-soft" role="status">
        <Why title={`Within ${within} % of the best possible${isDone ? "" : ", still looking"}`}>
          <p>
            This plan is expected to bring {formatMinutes(value)} towards your goals, weighed by their urgency, clouds
            taken in. No plan can bring more than {formatMinutes(bound)}: that is proven by prices for every channel at
            which each night on its own could not do better.
          </p>
          <p className="mt-2">
            True for the model: quarter hours, panels of one channel as one job, the chances of clear nights as given.
            Hours count as at each target&apos;s best here.
          </p>
        </Why>
        .
      </p>
    </div>
  );
}
