import {
  useId,
  useState,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";

import { helpFor } from "../words/help";

interface About {
  readonly label: string;
  readonly unit?: string;
  readonly hint?: ReactNode;
  /** What is wrong with the value; shown beside it. */
  readonly fault?: string | undefined;
}

function Frame({
  id,
  label,
  unit,
  hint,
  fault,
  children,
}: About & { readonly id: string; readonly children: ReactNode }) {
  const help = helpFor(label);
  const [isAsked, setAsked] = useState(false);
  return (
    <div className="grid grid-cols-[1fr_auto] content-start gap-1">
      <label htmlFor={id} className="text-note text-soft">
        {label}
        {unit ? <span className="text-faint"> · {unit}</span> : null}
      </label>
      <div className="col-span-2 row-start-2 flex flex-col">{children}</div>
      {help ? (
        <button
          type="button"
          aria-expanded={isAsked}
          aria-controls={`${id}-help`}
          aria-label={`What is “${label}”?`}
          title={help}
          onClick={() => setAsked(!isAsked)}
          className={`text-note col-start-2 row-start-1 -my-1 min-h-6 min-w-6 rounded-full ${isAsked ? "text-lamp" : "text-faint hover:text-ink"}`}
        >
          ?
        </button>
      ) : null}
      {help && isAsked ? (
        <p id={`${id}-help`} className="text-note text-soft border-rule col-span-2 border-l-2 pl-2">
          {help}
        </p>
      ) : null}
      {fault ? (
        <p id={`${id}-fault`} role="alert" className="text-note text-rust col-span-2">
          {fault}
        </p>
      ) : hint ? (
        <p id={`${id}-hint`} className="text-note text-faint col-span-2">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

const wiring = (id: string, { fault, hint }: About) => ({
  id,
  "aria-invalid": fault ? true : undefined,
  "aria-describedby": fault ? `${id}-fault` : hint ? `${id}-hint` : undefined,
});

/** A labelled text or number box with its unit, a hint, and the reason when its value is refused. */
export function Field({ label, unit, hint, fault, ...rest }: About & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  const about = { label, fault, ...(unit ? { unit } : {}), ...(hint ? { hint } : {}) };
  return (
    <Frame id={id} {...about}>
      <input {...wiring(id, about)} className="field-box" autoComplete="off" {...rest} />
    </Frame>
  );
}

/** A labelled choice. */
export function SelectField({
  label,
  unit,
  hint,
  fault,
  children,
  ...rest
}: About & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId();
  const about = { label, fault, ...(unit ? { unit } : {}), ...(hint ? { hint } : {}) };
  return (
    <Frame id={id} {...about}>
      <select {...wiring(id, about)} className="field-box" {...rest}>
        {children}
      </select>
    </Frame>
  );
}

/** A labelled box of several lines. */
export function TextField({ label, unit, hint, fault, ...rest }: About & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  const about = { label, fault, ...(unit ? { unit } : {}), ...(hint ? { hint } : {}) };
  return (
    <Frame id={id} {...about}>
      <textarea {...wiring(id, about)} className="field-box font-sans" rows={6} {...rest} />
    </Frame>
  );
}
