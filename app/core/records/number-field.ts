/** A number of a record: what it is called, its unit, and the range it must lie in. Form, message and published schema come from it. */
export interface NumberField {
  readonly label: string;
  readonly unit?: string;
  readonly min: number;
  readonly max: number;
  readonly isWhole?: boolean;
  /** The lowest value itself is refused: "more than 0". */
  readonly isAboveMin?: boolean;
  /** Of temperatures: how far apart, not how warm. */
  readonly isDifference?: boolean;
  readonly hint?: string;
}

/** A text of a record. */
export interface TextField {
  readonly label: string;
  /** Letters at most. */
  readonly max: number;
  readonly isRequired?: boolean;
  readonly hint?: string;
}

export const NAME: TextField = { label: "Name", max: 120, isRequired: true };
export const AZIMUTH: NumberField = { label: "Azimuth", unit: "°", min: 0, max: 360 };
