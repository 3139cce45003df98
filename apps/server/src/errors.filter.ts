/** Reports every error as what, where and what to do; unexpected ones are logged in full and reported briefly. */
import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common'
import { PageError } from '@waybell/core'
import type { Request, Response } from 'express'
import { MulterError } from 'multer'
import { storageFailure } from './db/failure.ts'

@Catch()
export class ErrorsFilter implements ExceptionFilter {
  private readonly log = new Logger('errors')

  /** @param data the database's folder */
  constructor(private readonly data: string) {}

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>()
    // The client is gone: an upload was cancelled, and nothing was kept.
    if (response.headersSent || host.switchToHttp().getRequest<Request>().socket.destroyed) return void response.end()
    const [status, code, message] = this.told(error)
    response.status(status).json({ code, message })
  }

  private told(thrown: unknown): [number, string, string] {
    const error = storageFailure(thrown, this.data) ?? thrown
    if (error instanceof PageError) return [422, error.code, sentence(error.message)]
    if (error instanceof MulterError)
      return [413, 'too-big', 'A file is larger than 100 MB, or there are more than 5,000; leave out what the page does not need.']
    if (error instanceof HttpException) {
      const body = error.getResponse()
      const known = typeof body === 'object' ? (body as { code?: string; message?: string | string[] }) : { message: body }
      // Nest wraps the upload's limits.
      if (error.getStatus() === 413)
        return [413, 'too-big', 'A file is larger than 100 MB, the most that is taken; make it smaller or leave it out.']
      return [error.getStatus(), known.code ?? 'request', String(known.message ?? error.message)]
    }
    // The request parser rejects some requests with a status of its own.
    const { status } = (error ?? {}) as { status?: unknown }
    if (status === 413) return [413, 'too-big', 'This is larger than the 24 MB that one request may have; do it in smaller steps.']
    if (status === 404) return [404, 'not-found', 'Nothing found at this address.']
    if (typeof status === 'number' && status >= 400 && status < 500)
      return [status, 'bad-input', `The request cannot be read: ${error instanceof Error ? error.message : String(error)}.`]
    this.log.error(error instanceof Error ? error.stack : String(error))
    return [500, 'internal', 'Something went wrong in the server; nothing was changed. The server’s own output says more.']
  }
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1) + '.'
