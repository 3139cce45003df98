/** Assembles the server: hosts, policies, the interface's files, and the API. */
import { NestFactory } from '@nestjs/core'
import type { NestExpressApplication } from '@nestjs/platform-express'
import compression from 'compression'
import express, { type NextFunction, type Request, type Response } from 'express'
import helmet from 'helmet'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { AppModule } from './app.module.ts'
import { webFolder, type Config } from './common/config.ts'
import { hostOf, isForeign } from './common/hosts.ts'
import { storageFailure } from './db/failure.ts'
import { FolderInUse } from './db/folder.ts'
import { ErrorsFilter } from './errors.filter.ts'
import { LiveService } from './live/live.service.ts'

export async function createApplication(config: Config): Promise<NestExpressApplication> {
  const app = await open(config)
  const live = app.get(LiveService)
  app.disable('x-powered-by')
  app.use((request: Request, response: Response, next: NextFunction) => {
    const host = hostOf(request)
    if (host.kind === 'live') return void live.answer(request, response, host.site, host.scripts).catch(next)
    next()
  })
  app.use((request: Request, response: Response, next: NextFunction) =>
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          // Also keeps frames from navigating elsewhere.
          frameSrc: [`http://*.localhost:${request.socket.localPort}`],
        },
      },
      crossOriginEmbedderPolicy: false,
      strictTransportSecurity: false,
    })(request, response, next),
  )
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.hostname === 'localhost' && request.method === 'GET')
      return response.redirect(`http://127.0.0.1:${request.socket.localPort}${request.originalUrl}`)
    if (hostOf(request).kind !== 'application')
      return void response.status(421).type('text/plain').send(`Way Bell answers at http://127.0.0.1:${request.socket.localPort}/`)
    if (request.method !== 'GET' && request.method !== 'HEAD' && isForeign(request))
      return void response.status(403).json({ code: 'foreign', message: 'Only Way Bell itself may ask for this.' })
    next()
  })
  app.use(compression())
  app.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.set('Cache-Control', 'no-store')
    next()
  })
  app.use('/api', express.json({ limit: '24mb' }))
  app.use('/assets', express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(webFolder, { index: false, maxAge: 0 }))
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isView =
      (request.method === 'GET' || request.method === 'HEAD') &&
      !request.path.startsWith('/api') &&
      existsSync(join(webFolder, 'index.html'))
    if (!isView) return next()
    response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'))
  })
  app.useGlobalFilters(new ErrorsFilter(config.data))
  app.enableShutdownHooks()
  return app
}

/** @throws Error with a message for people when the data can't be used */
async function open(config: Config): Promise<NestExpressApplication> {
  let folder: FolderInUse | null = null
  try {
    folder = FolderInUse.take(config.data)
    return await NestFactory.create<NestExpressApplication>(AppModule.with(config, folder), {
      logger: ['error', 'warn'],
      bodyParser: false,
      abortOnError: false,
      // Connections that listen for versions never end by themselves.
      forceCloseConnections: true,
    })
  } catch (error) {
    folder?.onApplicationShutdown()
    throw storageFailure(error, config.data) ?? error
  }
}
