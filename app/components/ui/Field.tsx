import {
  useId,
  useState,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";
import { Link } from "react-router";

import { parseClock, parseQuantity } from "~/core/notation";
import { readerTime } from "../clock";
import { besideBox } from "../measures";
import { helpFor } from "../words/help";
import { anchorOf } from "../words/anchor";

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
          {help}{" "}
          <Link to={`/kit/glossary#${anchorOf(label)}`} className="underline underline-offset-4">
            In the glossary
          </Link>
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

/**
 * A labelled text or number box with its unit, a hint, and the reason when its value is refused. To whoever reads in other units it
 * says what the number is in theirs, as they type; `isDifference`: of temperatures, how far apart.
 */
export function Field({
  label,
  unit,
  hint,
  fault,
  isDifference = false,
  onInput,
  ...rest
}: About & { readonly isDifference?: boolean | undefined } & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const text = String(rest.value ?? typed ?? rest.defaultValue ?? "");
  const value = unit ? parseQuantity(text, unit, isDifference) : null;
  const other = value === null || !unit ? null : besideBox({ label, unit }, value, isDifference);
  const said =
    other === null ? (
      hint
    ) : hint ? (
      <>
        {`${other}. `}
        {hint}
      </>
    ) : (
      other
    );
  const about = { label, fault, ...(unit ? { unit } : {}), ...(said ? { hint: said } : {}) };
  return (
    <Frame id={id} {...about}>
      <input
        {...wiring(id, about)}
        className="field-box"
        autoComplete="off"
        onInput={(e) => {
          setTyped(e.currentTarget.value);
          onInput?.(e);
        }}
        {...rest}
      />
    </Frame>
  );
}

/** A labelled box for a clock time, as its reader writes it: 21:05 or 9:05 pm, both are understood; it gives "21:05", or "" while it is none. */
export function TimeField({
  label,
  value,
  onTime,
}: {
  readonly label: string;
  /** "21:05"; "" = none. */
  readonly value: string;
  readonly onTime: (clock: string) => void;
}) {
  // What is typed stays as it is typed until the box is left, whatever it is understood as meanwhile.
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (value === "" ? "" : readerTime(value));
  const fault = text.trim() !== "" && parseClock(text) === null ? "Write a time such as 21:05 or 9:05 pm." : undefined;
  return (
    <Field
      label={label}
      placeholder={readerTime("21:00")}
      value={text}
      fault={fault}
      onChange={(e) => {
        const clock = parseClock(e.target.value) ?? "";
        setTyped(e.target.value);
        if (clock !== value) onTime(clock);
      }}
      onBlur={() => fault === undefined && setTyped(null)}
    />
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
