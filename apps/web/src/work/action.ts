/** A command with a name and maybe a shortcut. */
export interface Action {
  name: string
  keys?: string
  run: () => void
}
