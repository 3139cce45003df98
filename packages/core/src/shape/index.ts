/**
 * Shapes that what comes from outside is checked by. Who declares a command, an item or a form says its shape with these beside it;
 * only those who check load this file, so that a browser which does not check goes without.
 */
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
  /** Names a page, section, menu, item or screen. */
  key: Joi.string().max(80),
  /** An element of the page. */
  at: Joi.number().integer().min(0),
  text: text(2000),
  short: text(60),
  /** Says something. */
  words: Joi.string().pattern(/\S/).max(200),
  /** A language tag, or none. */
  lang: Joi.string().allow('').pattern(LANGUAGE).max(60),
  id: Joi.string().max(1000),
  /** An ID as a page may have it. */
  anyId: Joi.string().allow(''),
  file: Joi.string().max(400),
  /** The address of a folder of the web. */
  folder: Joi.string()
    .pattern(/^https?:\/\/[^\s/\\@]+\/([^\s\\?#]*\/)?$/i)
    .max(2000),
  px: Joi.number().min(-10000).max(10000),
  /** A place in an order, from 0. */
  index: Joi.number().integer().min(0),
  depth: Joi.number().integer().min(0).max(50),
  count: (least: number, most: number) => Joi.number().integer().min(least).max(most),
  is: Joi.boolean(),
  /** A class of the page's; empty for none. Without spaces, since several names stand in one attribute. */
  className: Joi.string().allow('').pattern(/^\S*$/).max(200),
  /** SHA-256 in hex. */
  hash: Joi.string().hex().length(64),
  /** A colour of the sheet. */
  hex: Joi.string().pattern(/^#[0-9a-f]{6}$/),
  /** Goes into a style as it stands, so nothing but a colour. */
  colour: Joi.string().pattern(COLOUR).max(200),
  /** So does this: properties, times, and how they run. @see CSS Transitions, "transition" */
  transition: Joi.string()
    .allow('')
    .pattern(/^(?:[\w\s.,-]|\b(?:cubic-bezier|steps|linear)\([\w\s.,%-]*\))*$/)
    .max(400),
  /** A length or position in a page, however long that is, in px. */
  length: Joi.number().min(-1e7).max(1e8),
}

export type Shapes = typeof shapes
export type Shape = Joi.Schema
