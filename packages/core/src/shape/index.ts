/** Shapes that check outside input. Commands, items and forms declare their shapes with these; only code that checks loads this file. */
import Joi from 'joi'
import { COLOUR } from '../colour/index.ts'
import { LANGUAGE } from '../contract/index.ts'

const text = (most: number) => Joi.string().allow('').max(most)

export const shapes = {
  object: (keys: Record<string, Joi.Schema>) => Joi.object(keys),
  alternatives: (of: Joi.Schema[]) => Joi.alternatives(...of),
  array: (of: Joi.Schema, most: number) => Joi.array().items(of).max(most),
  /** May be left out. */
  optional: (of: Joi.Schema) => of.optional(),
  oneOf: (...values: unknown[]) => Joi.valid(...values),
  /** Identifies a page, section, menu, item or screen. */
  key: Joi.string().max(80),
  /** An element, by its position. */
  at: Joi.number().integer().min(0),
  text: text(2000),
  short: text(60),
  /** Says something. */
  words: Joi.string().pattern(/\S/).max(200),
  /** A language tag; may be empty. */
  lang: Joi.string().allow('').pattern(LANGUAGE).max(60),
  id: Joi.string().max(1000),
  /** An ID as pages may have it. */
  anyId: Joi.string().allow(''),
  file: Joi.string().max(400),
  /** The URL of a folder. */
  folder: Joi.string()
    .pattern(/^https?:\/\/[^\s/\\@]+\/([^\s\\?#]*\/)?$/i)
    .max(2000),
  px: Joi.number().min(-10000).max(10000),
  /** An index, from 0. */
  index: Joi.number().integer().min(0),
  depth: Joi.number().integer().min(0).max(50),
  count: (least: number, most: number) => Joi.number().integer().min(least).max(most),
  is: Joi.boolean(),
  /** A class name; may be empty. Without spaces, because several go into one attribute. */
  className: Joi.string().allow('').pattern(/^\S*$/).max(200),
  /** SHA-256 in hex. */
  hash: Joi.string().hex().length(64),
  /** A colour as `#rrggbb`. */
  hex: Joi.string().pattern(/^#[0-9a-f]{6}$/),
  /** Written into a style, so it must be nothing but a colour. */
  colour: Joi.string().pattern(COLOUR).max(200),
  /** Also written into a style: properties and timing. @see CSS Transitions, "transition" */
  transition: Joi.string()
    .allow('')
    .pattern(/^(?:[\w\s.,-]|\b(?:cubic-bezier|steps|linear)\([\w\s.,%-]*\))*$/)
    .max(400),
  /** A length or position in a page, in px. */
  length: Joi.number().min(-1e7).max(1e8),
}

export type Shapes = typeof shapes
export type Shape = Joi.Schema
