import { CHANNELS, CHANNEL_FACTS, type Channel } from "~/core/exposure";
import { MOON_SCHOOLS, TWILIGHT_SCHOOLS, type MoonSchool, type MoonWishes, type TwilightSchool } from "~/core/night";
import type { MoonRule } from "~/core/sky";
import { parseNumber } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import { numberFault, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { MOON_RULE_FIELDS, MOON_SHARE_FIELD } from "~/core/records";

/** The two boxes of a channel's separation rule. */
export const MOON_RULE_NUMBERS = specsOf(MOON_RULE_FIELDS);

const isSchool = (text: string): text is MoonSchool => (MOON_SCHOOLS as readonly string[]).includes(text);

const isTwilight = (text: string): text is TwilightSchool => (TWILIGHT_SCHOOLS as readonly string[]).includes(text);

/** Reads the form of a person's rules about the Moon, or says beside each box what is wrong. */
export function readMoonForm(form: FormData): Result<MoonWishes, Faults> {
  const faults: Record<string, string> = {};
  const school = textOf(form, "school");
  if (!isSchool(school)) faults["school"] = "Choose one.";
  const twilight = textOf(form, "twilight");
  if (!isTwilight(twilight)) faults["twilight"] = "Choose one.";
  const share = textOf(form, "leastShare");
  const shareFault = numberFault(MOON_SHARE_FIELD, share);
  if (shareFault) faults["leastShare"] = shareFault;
  const rules: Partial<Record<Channel, MoonRule>> = {};
  const channels: Partial<Record<Channel, MoonSchool>> = {};
  for (const c of CHANNELS) {
    const own = textOf(form, `school ${c}`);
    if (isSchool(own)) channels[c] = own;
    const rule = { ...CHANNEL_FACTS[c].moonRule };
    for (const spec of MOON_RULE_NUMBERS) {
      const name = `${spec.name} ${c}`;
      const fault = numberFault(spec, textOf(form, name));
      if (fault) faults[name] = fault;
      else rule[spec.name] = parseNumber(textOf(form, name))!;
    }
    const usual = CHANNEL_FACTS[c].moonRule;
    if (rule.atFullDeg !== usual.atFullDeg || rule.halfWidthDays !== usual.halfWidthDays) rules[c] = rule;
  }
  if (Object.keys(faults).length > 0 || !isSchool(school)) return err(faults);
  return ok({
    school,
    leastShare: parseNumber(share)! / 100,
    ...(isTwilight(twilight) && twilight !== "count" ? { twilight } : {}),
    ...(Object.keys(rules).length > 0 ? { rules } : {}),
    ...(Object.keys(channels).length > 0 ? { channels } : {}),
  });
}
