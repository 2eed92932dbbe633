import clsx from "clsx";
import type { ButtonHTMLAttributes } from "react";

const BASE =
  "is-button inline-flex items-center justify-center gap-2 rounded-[6px] min-h-9 px-3.5 py-1.5 text-body transition-colors disabled:opacity-50";
const LOOKS = {
  main: "bg-lamp text-on-lamp font-semibold hover:brightness-110",
  quiet: "border border-rule bg-sheet hover:bg-raised",
  plain: "text-soft underline decoration-rule underline-offset-4 hover:text-ink px-1",
  stop: "border border-rule text-rust hover:bg-raised",
} as const;

/** The look of a button, for links that act like one. */
export const buttonLook = (look: keyof typeof LOOKS, extra?: string): string => clsx(BASE, LOOKS[look], extra);

/** A button: one `main` act a screen, the rest quiet. */
export function Button({
  look = "quiet",
  className,
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { readonly look?: keyof typeof LOOKS }) {
  return <button type={type} className={buttonLook(look, className)} {...rest} />;
}
