/** A clock time as people write it, "21:05", "2105", "9:05 pm", "9pm", "21", as "21:05"; null where it is none. */
export function parseClock(text: string): string | null {
  const match = /^\s*(\d{1,2})(?:[:.h]?([0-5]\d))?\s*(?:([ap])\.?\s*m\.?|h)?\s*$/i.exec(text);
  if (!match) return null;
  const [, hours, minutes = "00", half] = match;
  const hour = Number(hours);
  const isHalf = half !== undefined;
  if (isHalf ? hour < 1 || hour > 12 : hour > 23) return null;
  const whole = isHalf ? (hour % 12) + (half.toLowerCase() === "p" ? 12 : 0) : hour;
  return `${String(whole).padStart(2, "0")}:${minutes}`;
}
