/** Schemas of requests. Those of commands and surveys come from the core. */
import { commandSchema, shapes, surveySchema } from '@waybell/core/schema'
import { SCRIPT_FORMS } from '@waybell/runtime'
import Joi from 'joi'

const { at, hash, index, key } = shapes

/** The browser tab that makes a change; null for none. */
const tab = Joi.string().max(80).optional().default(null)
/** Of every change. */
const ofChange = { idempotencyKey: Joi.string().min(8).max(80), baseVersion: index, tab }
/** Sent with files for a page. */
export const addedFields = Joi.object({ tab })

export const changeRequest = Joi.object({
  ...ofChange,
  command: commandSchema,
  undoes: index.allow(null),
})

export const backRequest = Joi.object({ ...ofChange, version: index })
/** A stack's changes before a version. */
export const stackName = Joi.valid('undo', 'redo')
export const takingRequest = Joi.object({
  ...ofChange,
  source: hash,
  decisions: Joi.object({
    sections: Joi.object().pattern(key, at.allow(null)).max(5000),
    added: Joi.array().items(at).max(5000),
    otherwise: Joi.object()
      .pattern(key, Joi.alternatives(Joi.valid('top', 'out', 'as-is'), Joi.object({ section: key })))
      .max(5000)
      .optional(),
  }),
})
/** Form of the script in a handed-over page. */
export const formOfScript = Joi.valid(...SCRIPT_FORMS)
  .optional()
  .default('plain')
/** What a link is to be made of. */
export const linkableQuery = Joi.object({
  // Numbers in addresses are text.
  at: at.prefs({ convert: true }),
  of: Joi.valid('element', 'words', 'button'),
  label: Joi.string().allow('').max(2000).optional().default(''),
})
export const stateName = Joi.object({ name: Joi.string().allow('').max(200) })

export const surveysRequest = Joi.object({
  source: hash,
  scripts: Joi.boolean(),
  surveys: Joi.array()
    .items(Joi.object({ key: hash, survey: surveySchema }))
    .max(20),
})
export const newSiteFields = Joi.object({
  html: Joi.string()
    .max(25 * 1024 * 1024)
    .optional(),
  outline: Joi.string()
    .allow('')
    .max(2 * 1024 * 1024)
    .optional(),
  name: Joi.string().trim().max(200).allow('').optional(),
  /** `off`: page scripts don't run from the start. */
  scripts: Joi.valid('on', 'off').optional(),
})
export const siteKey = Joi.string().pattern(/^[a-z0-9]{4,40}$/)
export const pageKey = key
