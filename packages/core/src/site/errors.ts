/** A command that doesn't fit the document; `message` says why. */
export class CommandError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'CommandError'
  }
}
