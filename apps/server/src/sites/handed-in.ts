/** A file as it was handed in. */
export interface HandedIn {
  /** As the browser names it; may hold folders. */
  name: string
  bytes: Uint8Array
}
