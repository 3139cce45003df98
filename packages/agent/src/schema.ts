/**
 * The shape of what the agent in a page may say, for those who hear it. The page is not trusted, so neither is what comes out of it: every
 * length has bounds, and a colour is nothing but a colour, since it ends up in a style.
 */
import Joi from 'joi'
import type { FromAgent } from './messages.ts'

const length = Joi.number().min(-1e7).max(1e8)
const at = Joi.number().integer().min(0)
const text = Joi.string().allow('').max(2000)
const color = Joi.string().pattern(/^[a-z-]+\([\w.,/ %-]+\)$/)

const part = Joi.object({
  at,
  top: length,
  bottom: length,
  movedTop: length,
  margin: length,
  hasBox: Joi.boolean(),
  heading: Joi.object({ top: length, bottom: length }).allow(null),
  background: color,
})

const header = Joi.object({
  at: at.allow(null),
  position: Joi.valid('static', 'absolute', 'sticky', 'fixed'),
  height: length,
  rest: length,
  moved: length,
  hides: Joi.boolean(),
  canStay: Joi.boolean(),
  transparent: Joi.boolean(),
  color,
})

export const surveySchema = Joi.object({
  screen: text,
  width: length,
  height: length,
  pageHeight: length,
  maxScroll: length,
  parts: Joi.array().items(part).max(20000),
  header: header.allow(null),
  near: Joi.array()
    .items(Joi.object({ at, cover: length }))
    .max(50),
  color,
  background: color,
})

const turn = at

const shapes: Record<FromAgent['type'], Joi.Schema> = {
  ready: Joi.object({ type: 'ready' }),
  survey: Joi.object({ type: 'survey', turn, survey: surveySchema }),
  scrolled: Joi.object({ type: 'scrolled', y: length }),
  hover: Joi.object({ type: 'hover', at: at.allow(null) }),
  outside: Joi.object({ type: 'outside', href: text }),
  picking: Joi.object({
    type: 'picking',
    way: Joi.array()
      .items(Joi.object({ at, tag: Joi.string().max(100), id: text.allow(null), title: text, heading: at.allow(null) }))
      .max(40),
    state: Joi.valid('over', 'done', 'left'),
  }),
  visited: Joi.object({
    type: 'visited',
    turn,
    visit: Joi.object({ scroll: length, top: length, covered: length, current: text.allow(null) }),
  }),
  failed: Joi.object({ type: 'failed', turn, message: text }),
}

/** The message, or null for what is none. */
export function readMessage(data: unknown): FromAgent | null {
  const type = (data as { type?: unknown } | null)?.type
  if (typeof type !== 'string' || !Object.hasOwn(shapes, type)) return null
  const { error, value } = shapes[type as FromAgent['type']].validate(data, { convert: false, presence: 'required' })
  return error ? null : (value as FromAgent)
}
