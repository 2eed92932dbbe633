import { trimmed } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import type { ChannelOffer, HoursShare } from "~/core/exposure";

const OFFER_WORDS: Readonly<Record<ChannelOffer["why"], string>> = {
  hydrogen: "Its hydrogen regions stand out in Ha",
  stars: "Beside lines, stars keep their natural colours by",
  reflected: "It reflects light as well, which lines do not show",
};

/** "Beside lines, stars keep their natural colours by R 0.5 h, G 0.5 h, B 0.5 h." */
const offerWords = ({ why, channels }: ChannelOffer): string =>
  `${OFFER_WORDS[why]}${why === "stars" ? "" : ":"} ${channels.map((c) => `${c.channel} ${trimmed(c.hours)} h`).join(", ")}.`;

/** Channels that would help the ones that are there. */
export function Offers({
  offers,
  onTake,
}: {
  readonly offers: readonly ChannelOffer[];
  readonly onTake: (offer: ChannelOffer) => void;
}) {
  if (offers.length === 0) return null;
  return (
    <ul className="mt-3" aria-label="Offered beside these">
      {offers.map((offer) => (
        <li key={offer.why} className="flex flex-wrap items-baseline gap-x-3">
          <span>{offerWords(offer)}</span>
          <Button look="plain" className="px-0!" onClick={() => onTake(offer)}>
            Add {offer.channels.map((c) => c.channel).join(", ")}
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Adds one of the channels that there is a filter for. */
export function AddChannel({
  filters,
  onAdd,
}: {
  readonly filters: readonly { readonly id: string; readonly data: { readonly name: string } }[];
  readonly onAdd: (filterId: string) => void;
}) {
  if (filters.length === 0) return <span />;
  return (
    <div className="w-56">
      <SelectField label="Add a channel" value="" onChange={(e) => onAdd(e.target.value)}>
        <option value="">choose …</option>
        {filters.map((f) => (
          <option key={f.id} value={f.id}>
            {f.data.name}
          </option>
        ))}
      </SelectField>
    </div>
  );
}

const SHARE_WORDS: Readonly<Record<HoursShare, string>> = {
  equal: "the same for each",
  narrow344: "3 : 4 : 4, Ha : OIII : SII",
  narrow12: "1 : 2, Ha : OIII, for shells and remnants",
  broad3111: "3 : 1 : 1 : 1, L : R : G : B",
  broad41: "4 : 1, broad light : Ha",
  equalSnr: "equal signal to noise",
};

/** Shares the sum of the hours out among the channels. */
export function ShareOut({
  shares,
  onShare,
}: {
  readonly shares: readonly HoursShare[];
  readonly onShare: (how: HoursShare) => void;
}) {
  if (shares.length === 0) return null;
  return (
    <div className="w-64">
      <SelectField
        label="Share the hours out"
        value=""
        hint="The sum a panel stays as it is."
        onChange={(e) => {
          const how = shares.find((s) => s === e.target.value);
          if (how) onShare(how);
        }}
      >
        <option value="">choose …</option>
        {shares.map((s) => (
          <option key={s} value={s}>
            {SHARE_WORDS[s]}
          </option>
        ))}
      </SelectField>
    </div>
  );
}
