import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import type { WrongClock } from "~/desk/log/wrong-clocks";
import { doubtWords, putRightWords } from "./intake-words";

type PutRight = Readonly<Record<string, number>>;

/** Clocks that seem to be wrong, each for one camera and one night: what says so, what putting it right moves, and the way back. */
export function WrongClocks({
  clocks,
  putRight,
  onPut,
}: {
  readonly clocks: readonly WrongClock[];
  readonly putRight: PutRight;
  readonly onPut: (all: PutRight) => void;
}) {
  return clocks.map((c) => (
    <p key={c.session} className="border-lamp my-3 border-l-2 pl-3">
      {c.isPutRight ? putRightWords(c) : doubtWords(c)}{" "}
      <Button
        look="plain"
        onClick={() => {
          const others = Object.fromEntries(Object.entries(putRight).filter(([session]) => session !== c.session));
          onPut(c.isPutRight ? others : { ...others, [c.session]: c.hours });
        }}
      >
        {c.isPutRight ? "Leave it as it was" : `Put ${counted(c.files, "file")} right`}
      </Button>
    </p>
  ));
}
