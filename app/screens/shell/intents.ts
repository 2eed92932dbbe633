/** What the shell itself asks for, from any screen: to take an act back. */
export interface ShellIntent {
  readonly act: "undo";
  readonly undoId: string;
}
