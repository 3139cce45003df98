/** The shape of every command, and of what comes with it. */
import { surveySchema } from '@waybell/agent/schema'
import Joi from 'joi'

const key = Joi.string().max(80)
const label = Joi.string().allow('').max(2000)
const id = Joi.string().max(1000)
const at = Joi.number().integer().min(0)
const px = Joi.number().min(-10000).max(10000)

const former = Joi.array().items(id).max(200)
const depth = Joi.number().integer().min(0).max(50)
const section = Joi.object({
  key,
  at,
  point: Joi.object({ shift: px }).allow(null),
  title: label,
  id,
  own: Joi.string().allow('', null),
  former,
  heading: at.allow(null),
  depth,
  toTop: Joi.boolean(),
})
const affix = Joi.string().allow('').max(60)
const rule = Joi.object({
  letters: Joi.valid('lower', 'as-typed'),
  separator: Joi.valid('-', '_', ''),
  prefix: affix,
  suffix: affix,
  wraps: Joi.boolean(),
  longest: Joi.number().integer().min(4).max(200),
  accents: Joi.valid('folded', 'kept'),
  scripts: Joi.valid('transliterated', 'kept'),
  beforeDigit: affix,
  dropped: Joi.array().items(Joi.string().max(60)).max(200),
})
const target = Joi.alternatives(Joi.object({ kind: Joi.valid('section'), section: key }), Joi.object({ kind: Joi.valid('top', 'as-is') }))
const item = Joi.object({ key, label, target, link: at.allow(null) })
const menu = Joi.object({ key, name: label, at: at.allow(null), items: Joi.array().items(item).max(5000) })
// Goes into a style as it stands, so nothing but a colour.
const color = Joi.string().pattern(/^rgba?\([\d.,/ %]+\)$/)
const header = Joi.object({ at, keep: Joi.valid('sticky', 'fixed', null), backing: color.allow(null) }).allow(null)
const setUp = Joi.object({
  sections: Joi.array().items(section).max(5000),
  menus: Joi.array().items(menu).max(50),
  header,
  bar: Joi.valid('top', 'after-header', 'under-fixed'),
  travel: Joi.object({ smooth: Joi.boolean(), breathing: px }),
  highlight: Joi.object({ bellOffset: px }),
})

const index = Joi.number().integer().min(0)
const page = key
const sitePage = Joi.object({ key, file: Joi.string().max(400), source: Joi.string().hex().length(64), title: label }).concat(setUp)
const shapes: Record<string, Record<string, Joi.Schema>> = {
  'site/rename': { name: label },
  'site/rule': { rule },
  'page/add': { page: sitePage, index },
  'page/drop': { page },
  'page/set-up': { page, setUp },
  'page/revise': { page, revision: setUp.keys({ source: Joi.string().hex().length(64), title: label }) },
  'section/title': { page, section: key, title: label },
  'section/id': { page, section: key, id, former },
  'section/depth': { page, section: key, depth },
  'section/point': { page, section: key, at, shift: px },
  'section/to-top': { page, section: key, toTop: Joi.boolean() },
  'section/add': { page, section },
  'section/drop': { page, section: key },
  'menu/add': { page, menu, index },
  'menu/drop': { page, menu: key },
  'item/add': { page, menu: key, item, index },
  'item/drop': { page, menu: key, item: key },
  'item/move': { page, menu: key, item: key, index },
  'item/label': { page, menu: key, item: key, label },
  'item/target': { page, menu: key, item: key, target },
  'header/choose': { page, header },
  'travel/smooth': { page, smooth: Joi.boolean() },
  'travel/breathing': { page, breathing: px },
  'highlight/bell': { page, bellOffset: px },
}

const single = Object.entries(shapes).map(([type, shape]) => ({ is: type, then: Joi.object({ type, ...shape }) }))

export const command = Joi.alternatives()
  .conditional(Joi.ref('.type'), {
    switch: [
      ...single,
      { is: 'batch', then: Joi.object({ type: 'batch', label, commands: Joi.array().items(Joi.link('#anyCommand')).max(20000) }) },
    ],
    otherwise: Joi.forbidden(),
  })
  .id('anyCommand')

export const changeRequest = Joi.object({
  idempotencyKey: Joi.string().min(8).max(80),
  baseVersion: index,
  command,
  undoes: index.allow(null),
})

export const backRequest = Joi.object({ idempotencyKey: Joi.string().min(8).max(80), baseVersion: index, version: index })
export const takingRequest = Joi.object({
  idempotencyKey: Joi.string().min(8).max(80),
  baseVersion: index,
  source: Joi.string().hex().length(64),
  decisions: Joi.object({ sections: Joi.object().pattern(key, at.allow(null)).max(5000), added: Joi.array().items(at).max(5000) }),
})
export const stateName = Joi.object({ name: Joi.string().allow('').max(200) })

export const surveysRequest = Joi.object({ source: Joi.string().hex().length(64), surveys: Joi.array().items(surveySchema).max(20) })
export const newSiteFields = Joi.object({
  html: Joi.string()
    .max(25 * 1024 * 1024)
    .optional(),
  outline: Joi.string()
    .allow('')
    .max(2 * 1024 * 1024)
    .optional(),
  name: Joi.string().trim().max(200).allow('').optional(),
})
export const siteKey = Joi.string().pattern(/^[a-z0-9]{4,40}$/)
export const pageKey = key
