import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Res, UploadedFiles, UseInterceptors, BadRequestException } from '@nestjs/common'
import { FilesInterceptor } from '@nestjs/platform-express'
import { MAX_PAGE_BYTES, type Survey } from '@waybell/core'
import { runtimeText } from '@waybell/runtime'
import type { Response } from 'express'
import { JoiPipe } from '../common/joi.ts'
import { changeRequest, newSiteFields, pageKey, siteKey, surveysRequest } from './command.schema.ts'
import { HandoverService } from './handover.service.ts'
import type { HandedIn } from './import.ts'
import { SitesService, type ChangeRequest } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'

// One byte more than a page may have, so that a page beyond the bound is told its own bound.
const upload = FilesInterceptor('files', 3000, { preservePath: true, limits: { fileSize: MAX_PAGE_BYTES + 1, fieldSize: MAX_PAGE_BYTES * 2 } })

const handedIn = (files: Express.Multer.File[]): HandedIn[] =>
  // Browsers send names as UTF-8; the parser takes them for Latin-1.
  files.map((f) => ({ name: Buffer.from(f.originalname, 'latin1').toString('utf8'), bytes: f.buffer }))

const site = new JoiPipe<string>(siteKey)
const page = new JoiPipe<string>(pageKey)

@Controller('api')
export class SitesController {
  constructor(
    private readonly sites: SitesService,
    private readonly sources: SourcesService,
    private readonly handovers: HandoverService,
  ) {}

  @Get('runtime')
  runtime(@Res() response: Response) {
    response.type('text/plain').send(runtimeText)
  }

  @Get('sites')
  list() {
    return this.sites.list()
  }

  @Post('sites')
  @UseInterceptors(upload)
  create(@UploadedFiles() files: Express.Multer.File[], @Body(new JoiPipe(newSiteFields)) fields: { html?: string; name?: string }) {
    const given = handedIn(files ?? [])
    if (fields.html !== undefined) given.unshift({ name: 'index.html', bytes: new TextEncoder().encode(fields.html) })
    if (!given.length) throw new BadRequestException({ code: 'no-files', message: 'No file came with this; choose the HTML file of the page.' })
    return this.sites.create(given, fields.name)
  }

  @Get('sites/:site')
  get(@Param('site', site) key: string) {
    return this.sites.get(key)
  }

  @Delete('sites/:site')
  @HttpCode(204)
  drop(@Param('site', site) key: string) {
    return this.sites.drop(key)
  }

  @Post('sites/:site/changes')
  @HttpCode(200)
  change(@Param('site', site) key: string, @Body(new JoiPipe(changeRequest)) request: ChangeRequest) {
    return this.sites.change(key, request)
  }

  @Get('sites/:site/pages/:page')
  async state(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    const found = await this.sites.page(key, pageKey)
    return this.sources.state(key, found.page)
  }

  @Post('sites/:site/pages/:page/files')
  @HttpCode(204)
  @UseInterceptors(upload)
  addFiles(@Param('site', site) key: string, @Param('page', page) pageKey: string, @UploadedFiles() files: Express.Multer.File[]) {
    return this.sites.addFiles(key, pageKey, handedIn(files ?? []))
  }

  @Put('sites/:site/pages/:page/surveys')
  @HttpCode(204)
  putSurveys(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Body(new JoiPipe(surveysRequest)) body: { source: string; surveys: Survey[] }) {
    return this.sites.putSurveys(key, pageKey, body.source, body.surveys)
  }

  @Get('sites/:site/pages/:page/handover')
  handover(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    return this.handovers.view(key, pageKey)
  }

  @Get('sites/:site/pages/:page/handover/page')
  async handoverPage(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Res() response: Response) {
    const { page: found, handover } = await this.handovers.page(key, pageKey)
    // Never shown as a page on the application's own host.
    response.attachment(found.file).type('application/octet-stream').send(Buffer.from(handover.bytes))
  }

  @Get('sites/:site/pages/:page/handover/zip')
  async handoverZip(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Res() response: Response) {
    const { name, stream } = await this.handovers.zip(key, pageKey)
    response.attachment(name).type('application/zip')
    stream.pipe(response)
  }
}
