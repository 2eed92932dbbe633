import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";

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
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-note text-soft">
        {label}
        {unit ? <span className="text-faint"> · {unit}</span> : null}
      </label>
      {children}
      {fault ? (
        <p id={`${id}-fault`} role="alert" className="text-note text-rust">
          {fault}
        </p>
      ) : hint ? (
        <p id={`${id}-hint`} className="text-note text-faint">
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
