import { CalendarSearch } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import { longNight } from "~/components/clock";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { addNights, isNightDate, nightDate } from "~/core/time";

const MONTH_NIGHTS = 30;
const [FIRST, LAST] = ["1950-01-01", "2149-12-31"];

/** The sheet by which any night is chosen, open from the start. */
export function AnyNightPopover({
  chosen,
  today,
  onChoose,
  look,
}: {
  readonly chosen: string;
  readonly today: string;
  readonly onChoose: (night: string) => void;
  readonly look: string;
}) {
  const [isOpen, setOpen] = useState(true);
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Another night; ${longNight(chosen)} is chosen`}
        title="Another night"
        tabIndex={-1}
        className={look}
      >
        <CalendarSearch size={20} strokeWidth={1.5} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={12}
          className="border-rule bg-sheet text-body text-ink z-40 w-72 rounded-[8px] border p-4 shadow-lg"
        >
          <Field
            label="Evening of"
            type="date"
            value={typed ?? chosen}
            min={FIRST}
            max={LAST}
            hint="It governs every screen. The keys [ and ] go a night back or on."
            onChange={(e) => {
              // A year is typed digit by digit: 0002 is not meant.
              const { value } = e.target;
              setTyped(value);
              if (isNightDate(value) && value >= FIRST && value <= LAST) onChoose(value);
            }}
            onBlur={() => setTyped(null)}
          />
          <div className="mt-3 flex flex-wrap gap-2">
            <Button onClick={() => onChoose(addNights(nightDate(chosen), -MONTH_NIGHTS))}>30 nights back</Button>
            <Button onClick={() => onChoose(addNights(nightDate(chosen), MONTH_NIGHTS))}>30 nights on</Button>
            <Button
              disabled={chosen === today}
              onClick={() => {
                setOpen(false);
                onChoose(today);
              }}
            >
              Back to tonight
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
