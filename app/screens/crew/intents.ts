/** What the crew's page asks for: to join the friend's file that was looked into. */
export interface CrewIntent {
  readonly act: "join";
  readonly letsAheadIn: boolean;
}
