/** The shape of the agent's messages, for receivers. Pages aren't trusted, so neither are their messages. */
import { shapes as common, surveySchema, triedSchema } from '@waybell/core/schema'
import Joi from 'joi'
import type { FromAgent } from './messages.ts'

const { at, length, text } = common
const turn = at

const shapes: Record<FromAgent['type'], Joi.Schema> = {
  ready: Joi.object({ type: 'ready' }),
  survey: Joi.object({ type: 'survey', turn, survey: surveySchema.allow(null), isRestless: Joi.boolean() }),
  patched: Joi.object({ type: 'patched', turn }),
  scrolled: Joi.object({ type: 'scrolled', y: length }),
  followed: Joi.object({ type: 'followed', hash: text }),
  hover: Joi.object({ type: 'hover', at: at.allow(null) }),
  outside: Joi.object({ type: 'outside', href: text }),
  picking: Joi.object({
    type: 'picking',
    way: Joi.array()
      .items(
        Joi.object({
          at,
          tag: Joi.string().max(100),
          id: text.allow(null),
          title: text,
          heading: at.allow(null),
          noLink: Joi.string().max(20).allow(null),
          words: text,
        }),
      )
      .max(40),
    state: Joi.valid('over', 'done', 'left'),
  }),
  visited: Joi.object({
    type: 'visited',
    turn,
    visit: Joi.object({ scroll: length, top: length, covered: length, current: text.allow(null) }),
  }),
  tried: Joi.object({ type: 'tried', turn, tried: triedSchema.allow(null) }),
  failed: Joi.object({ type: 'failed', turn, message: text }),
}

/** The message; null if invalid. */
export function readMessage(data: unknown): FromAgent | null {
  const type = (data as { type?: unknown } | null)?.type
  if (typeof type !== 'string' || !Object.hasOwn(shapes, type)) return null
  const { error, value } = shapes[type as FromAgent['type']].validate(data, { convert: false, presence: 'required' })
  return error ? null : (value as FromAgent)
}
