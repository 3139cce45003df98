/** A command that does not fit the document; `message` says what is missing or wrong. */
export class CommandError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'CommandError'
  }
}
