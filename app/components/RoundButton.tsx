import { useSubmit } from "react-router";
import { ACTS, type ActsIntent } from "~/components/forms/acts-intent";

/** Takes the round through one's first picture up, or begins it. */
export function RoundButton({
  className = "",
  onPressed,
}: {
  readonly className?: string;
  readonly onPressed?: () => void;
}) {
  const submit = useSubmit(); // not a fetcher: what leads elsewhere outlives the sheet that it was pressed on
  const go = () => {
    const intent: ActsIntent = { act: "round", to: "take up" };
    void submit({ ...intent }, { method: "post", action: ACTS, encType: "application/json" });
    onPressed?.();
  };
  return (
    <button type="button" onClick={go} className={`underline underline-offset-4 ${className}`}>
      The round through your first picture
    </button>
  );
}
