import { useNavigation } from "react-router";
import { Button } from "../ui/Button";

/** The button that sends a form: it waits while the form is on its way, and says so. */
export function SaveButton({
  words,
  look = "main",
  className,
}: {
  readonly words: string;
  readonly look?: "main" | "quiet";
  readonly className?: string;
}) {
  const isSending = useNavigation().state === "submitting";
  return (
    <Button look={look} type="submit" disabled={isSending} {...(className ? { className } : {})}>
      {isSending ? "Saving …" : words}
    </Button>
  );
}
