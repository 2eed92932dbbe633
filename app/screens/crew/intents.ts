/** What the crew's page asks for: to join the friend's file that was looked into. */
export interface CrewIntent {
  readonly act: "join";
  readonly letsAheadIn: boolean;
  /** Of what it would change here, what was said yes to. */
  readonly chosen: readonly string[];
}
