/** Schemas of commands and documents from outside. */
import Joi from 'joi'
import { commandKinds } from './commands/index.ts'
import { addressShape, pageShape, ruleShape, screenShape } from './commands/shapes.ts'
import { SITE_VERSION, type Site } from './index.ts'
import { shapes as s, type Shape } from '../shape/index.ts'

const single = Object.entries(commandKinds).map(([type, kind]) => ({
  is: type,
  then: Joi.object({ type, ...(kind.payload as (of: typeof s) => Record<string, Shape>)(s) }),
}))

/** Any command, including batches. */
export const commandSchema = Joi.alternatives()
  .conditional(Joi.ref('.type'), {
    switch: [
      ...single,
      { is: 'batch', then: Joi.object({ type: 'batch', label: s.text, commands: Joi.array().items(Joi.link('#anyCommand')).max(20000) }) },
    ],
    otherwise: Joi.forbidden(),
  })
  .id('anyCommand')

const siteKeys: { [K in keyof Site]: Shape } = {
  format: s.oneOf('way-bell-site'),
  version: s.oneOf(SITE_VERSION),
  name: s.text,
  rule: ruleShape(s),
  screens: s.array(screenShape(s), 50),
  pages: s.array(pageShape(s), 100).min(1),
  scripts: s.optional(s.oneOf(false)),
  small: s.optional(s.oneOf(true)),
  address: addressShape(s),
}

/** The site document, `site.json`. */
export const siteSchema = s.object(siteKeys)
