/** Something that can be done by name, with its shortcut. */
export interface Action {
  name: string
  keys?: string
  run: () => void
}
