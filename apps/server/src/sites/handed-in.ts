/** A file given by a user. */
export interface HandedIn {
  /** As the browser names it; may contain folders. */
  name: string
  bytes: Uint8Array
}
