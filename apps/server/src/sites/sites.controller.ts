import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  Req,
  Res,
  Sse,
  UploadedFiles,
  UseInterceptors,
  BadRequestException,
} from '@nestjs/common'
import { FilesInterceptor } from '@nestjs/platform-express'
import { canBeLink, linksInto, MAX_PAGE_BYTES, type LinkFromPage, type MadeLink, type StackName } from '@waybell/core'
import { liveScripts, type ScriptForm } from '@waybell/runtime'
import type { Request, Response } from 'express'
import { CONFIG, dataSize, type Config } from '../common/config.ts'
import { JoiPipe } from '../common/joi.ts'
import {
  addedFields,
  backRequest,
  changeRequest,
  formOfScript,
  linkableQuery,
  newSiteFields,
  pageKey,
  siteKey,
  stackName,
  stateName,
  surveysRequest,
  takingRequest,
} from './requests.ts'
import { ChangesService, type ChangeOf, type ChangeRequest } from './changes.service.ts'
import { HandoverService } from './handover.service.ts'
import { OverviewService } from './overview.service.ts'
import { outlineSite, readAdded, readImport, unpack } from './import.ts'
import type { HandedIn } from './handed-in.ts'
import { MAX_ENTRIES, MAX_UPLOAD } from './zip.ts'
import { SitesService, type NewSite } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'
import { SurveysService, type PutSurveys } from './surveys.service.ts'
import { VersionsService, type Taking } from './versions.service.ts'

// A site's ZIP may be larger than a page; its content has limits of its own.
const upload = FilesInterceptor('files', MAX_ENTRIES, {
  preservePath: true,
  limits: { fileSize: MAX_UPLOAD, fieldSize: MAX_PAGE_BYTES * 2 },
})

const handedIn = (files: Express.Multer.File[]): HandedIn[] =>
  // Browsers send names as UTF-8; the parser reads them as Latin-1.
  files.map((f) => ({ name: Buffer.from(f.originalname, 'latin1').toString('utf8'), bytes: f.buffer }))

const site = new JoiPipe<string>(siteKey)
const page = new JoiPipe<string>(pageKey)
const stack = new JoiPipe<StackName>(stackName)
const scriptForm = new JoiPipe<ScriptForm>(formOfScript)

@Controller('api')
export class SitesController {
  constructor(
    private readonly sites: SitesService,
    private readonly changes: ChangesService,
    private readonly sources: SourcesService,
    private readonly handovers: HandoverService,
    private readonly overviews: OverviewService,
    private readonly newVersions: VersionsService,
    private readonly surveys: SurveysService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** For the live page. */
  @Get('runtime')
  runtime() {
    return liveScripts()
  }

  @Get('storage')
  storage() {
    return dataSize(this.config.data)
  }

  @Get('sites')
  list() {
    return this.sites.list()
  }

  @Post('sites')
  @UseInterceptors(upload)
  async create(
    @UploadedFiles() files: Express.Multer.File[],
    @Body(new JoiPipe(newSiteFields)) fields: NewSite & { html?: string; outline?: string },
    @Req() request: Request,
  ) {
    if (fields.outline !== undefined) return this.sites.create(outlineSite(fields.outline), fields)
    const given = handedIn(files ?? [])
    if (fields.html !== undefined) given.unshift({ name: 'index.html', bytes: new TextEncoder().encode(fields.html) })
    if (!given.length)
      throw new BadRequestException({ code: 'no-files', message: 'No file came with this; choose the HTML file of the page.' })
    const read = readImport(await unpack(given))
    // The client cancelled while it was read.
    if (request.socket.destroyed) throw new BadRequestException({ code: 'stopped', message: 'This was stopped; nothing was stored.' })
    return this.sites.create(read, fields)
  }

  @Get('sites/:site')
  get(@Param('site', site) key: string) {
    return this.sites.get(key)
  }

  @Get('sites/:site/overview')
  overview(@Param('site', site) key: string) {
    return this.overviews.of(key)
  }

  @Delete('sites/:site')
  @HttpCode(204)
  drop(@Param('site', site) key: string) {
    return this.sites.drop(key)
  }

  @Post('sites/:site/changes')
  @HttpCode(200)
  change(@Param('site', site) key: string, @Body(new JoiPipe(changeRequest)) request: ChangeRequest) {
    return this.changes.change(key, request)
  }

  @Get('sites/:site/stacks/:stack')
  earlierChanges(@Param('site', site) key: string, @Param('stack', stack) name: StackName, @Query('before', ParseIntPipe) before: number) {
    return this.changes.earlierChanges(key, name, before)
  }

  @Get('sites/:site/pages/:page')
  async state(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    const found = await this.sites.page(key, pageKey)
    const [state, assets] = await Promise.all([this.sources.state(key, found.page), this.surveys.assets(key)])
    return { ...state, assets }
  }

  @Get('sites/:site/pages/:page/linkable')
  async linkable(
    @Param('site', site) key: string,
    @Param('page', page) pageKey: string,
    @Query(new JoiPipe(linkableQuery)) { at, of, label }: { at: number; of: MadeLink['of']; label: string },
  ) {
    const { parsed } = await this.sources.source((await this.sites.page(key, pageKey)).page)
    return { isInFile: canBeLink(parsed, at, of, label) }
  }

  /** Links to this page in other pages' files. */
  @Get('sites/:site/pages/:page/leaders')
  async leaders(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    const { document, page } = await this.sites.page(key, pageKey)
    const from: LinkFromPage[] = []
    for (const other of document.pages)
      if (other !== page) from.push(...linksInto(page, other, (await this.sources.source(other)).reading, document.pages))
    return from
  }

  @Post('sites/:site/pages/:page/files')
  @UseInterceptors(upload)
  async addFiles(
    @Param('site', site) key: string,
    @Param('page', page) pageKey: string,
    @UploadedFiles() files: Express.Multer.File[],
    @Body(new JoiPipe(addedFields)) { tab }: { tab: string | null },
  ) {
    return this.sites.addFiles(key, pageKey, readAdded(await unpack(handedIn(files ?? []))), tab)
  }

  @Get('sites/:site/log')
  log(@Param('site', site) key: string) {
    return this.changes.log(key)
  }

  @Put('sites/:site/log/:version')
  @HttpCode(204)
  nameState(
    @Param('site', site) key: string,
    @Param('version', ParseIntPipe) version: number,
    @Body(new JoiPipe(stateName)) { name }: { name: string },
  ) {
    return this.changes.nameState(key, version, name)
  }

  @Post('sites/:site/back')
  @HttpCode(200)
  goBack(@Param('site', site) key: string, @Body(new JoiPipe(backRequest)) request: ChangeOf & { version: number }) {
    return this.changes.goBack(key, request)
  }

  @Sse('versions')
  versions() {
    return this.changes.versions()
  }

  @Post('sites/:site/pages/:page/review')
  @HttpCode(200)
  @UseInterceptors(upload)
  async review(@Param('site', site) key: string, @Param('page', page) pageKey: string, @UploadedFiles() files: Express.Multer.File[]) {
    return this.newVersions.review(key, pageKey, await unpack(handedIn(files ?? [])))
  }

  @Post('sites/:site/pages/:page/revise')
  @HttpCode(200)
  revise(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Body(new JoiPipe(takingRequest)) request: Taking) {
    return this.newVersions.take(key, pageKey, request)
  }

  @Get('sites/:site/pages/:page/surveys')
  keptSurveys(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    return this.surveys.kept(key, pageKey)
  }

  @Put('sites/:site/pages/:page/surveys')
  putSurveys(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Body(new JoiPipe(surveysRequest)) body: PutSurveys) {
    return this.surveys.put(key, pageKey, body)
  }

  @Get('sites/:site/pages/:page/handover')
  handover(@Param('site', site) key: string, @Param('page', page) pageKey: string, @Query('script', scriptForm) form: ScriptForm) {
    return this.handovers.view(key, pageKey, form)
  }

  @Get('sites/:site/pages/:page/handovers')
  handedOver(@Param('site', site) key: string, @Param('page', page) pageKey: string) {
    return this.handovers.handedOver(key, pageKey)
  }

  @Post('sites/:site/pages/:page/handover/page')
  @HttpCode(200)
  async handoverPage(
    @Param('site', site) key: string,
    @Param('page', page) pageKey: string,
    @Query('script', scriptForm) form: ScriptForm,
    @Res() response: Response,
  ) {
    const { page: found, handover } = await this.handovers.taken(key, pageKey, form)
    // Never displayed on the application's own host.
    response.attachment(found.file).type('application/octet-stream').send(Buffer.from(handover.bytes))
  }

  @Post('sites/:site/pages/:page/handover/zip')
  @HttpCode(200)
  async handoverZip(
    @Param('site', site) key: string,
    @Param('page', page) pageKey: string,
    @Query('script', scriptForm) form: ScriptForm,
    @Res() response: Response,
  ) {
    const { name, stream } = await this.handovers.zip(key, pageKey, form)
    response.attachment(name).type('application/zip')
    stream.pipe(response)
  }
}
