/** Shapes of document parts in commands. Only created where something is checked. */
import { ADDRESS_RULES, EASINGS, FILLS, markStyles, TIMES } from '../../contract/index.ts'
import { LOOK_FIELDS, SMALL, shapeOfFields, STATE_FIELDS, STATES } from '../../menus/forms/form.ts'
import { forms } from '../../menus/forms/index.ts'
import { HOLDS } from '../document/index.ts'
import { itemKinds } from '../../menus/items/index.ts'
import type { Shape, Shapes } from '../../shape/index.ts'

/** One of several objects, by `kind`. */
const byKind = (s: Shapes, kinds: Record<string, Record<string, Shape>>): Shape =>
  s.alternatives(Object.entries(kinds).map(([kind, keys]) => s.object({ kind: s.oneOf(kind), ...keys })))

const each = <K extends { shape: (s: Shapes) => Record<string, Shape> }>(s: Shapes, kinds: Record<string, K>) =>
  Object.fromEntries(Object.entries(kinds).map(([kind, { shape }]) => [kind, shape(s)]))

export const targetShape = (s: Shapes): Shape => byKind(s, each(s, itemKinds))

export const madeLinkShape = (s: Shapes): Shape =>
  s.optional(s.object({ of: s.oneOf('element', 'words', 'button'), label: s.text, isSaid: s.optional(s.oneOf(true)) }))

export const timedShape = (s: Shapes): Shape =>
  s.object({
    easing: s.oneOf(...Object.keys(EASINGS)),
    ms: s.count(TIMES.least, TIMES.most),
    most: s.optional(s.count(TIMES.least, TIMES.most)),
  })

export const motionShape = (s: Shapes): Shape => s.optional(s.alternatives([s.oneOf('jump', 'smooth'), timedShape(s)]))

export const addressRuleShape = (s: Shapes): Shape => s.optional(s.oneOf(...ADDRESS_RULES))

export const itemShape = (s: Shapes): Shape =>
  s.object({
    key: s.key,
    label: s.text,
    target: targetShape(s),
    links: s.array(s.at, 20),
    tooltip: s.optional(s.text),
    lang: s.optional(s.lang),
    depth: s.optional(s.depth),
    off: offShape(s),
    motion: motionShape(s),
    assumed: flagShape(s),
  })

export const markShape = (s: Shapes): Shape =>
  s.alternatives([s.oneOf(...markStyles), s.object({ on: s.oneOf('link', 'entry'), name: s.className })])

/** Keys of screens that something isn't on. */
export const offShape = (s: Shapes): Shape => s.optional(s.array(s.key, 100))

export const madeFormShape = (s: Shapes): Shape =>
  byKind(s, Object.fromEntries(Object.entries(forms).map(([kind, { fields }]) => [kind, shapeOfFields(s, fields, true)])))

export const shownShape = (s: Shapes): Shape =>
  s.optional(
    s.object({
      from: s.optional(s.key),
      until: s.optional(s.key),
      after: s.optional(s.count(1, 100000)),
      off: offShape(s),
      small: s.optional(s.object({ upTo: s.count(1, 20000), as: s.oneOf(...SMALL) })),
      holds: s.optional(s.oneOf(...HOLDS)),
    }),
  )

export const lookShape = (s: Shapes): Shape => {
  const state = s.optional(s.object(shapeOfFields(s, STATE_FIELDS, false)))
  const states = s.optional(s.object(Object.fromEntries(STATES.map((name) => [name, state]))))
  return s.optional(s.object({ ...shapeOfFields(s, LOOK_FIELDS, false), states }))
}

export const syncShape = (s: Shapes): Shape =>
  s.optional(s.object({ page: s.key, menu: s.key, labels: s.array(s.object({ item: s.key, label: s.text }), 5000) }))

/** False or left out. */
export const growsShape = (s: Shapes): Shape => s.optional(s.oneOf(false))

export const menuShape = (s: Shapes): Shape =>
  s.object({
    key: s.key,
    name: s.text,
    form: s.alternatives([
      s.object({ kind: s.oneOf('found'), elements: s.array(s.at, 20), mark: s.optional(markShape(s)), shutBy: s.optional(s.at) }),
      madeFormShape(s),
    ]),
    shown: shownShape(s),
    look: lookShape(s),
    motion: motionShape(s),
    syncedWith: syncShape(s),
    grows: growsShape(s),
    items: s.array(itemShape(s), 5000),
  })

export const sectionShape = (s: Shapes): Shape =>
  s.object({
    key: s.key,
    at: s.at,
    point: s.object({ shift: s.px }).allow(null),
    title: s.text,
    id: s.id,
    sourceId: s.anyId.allow(null),
    former: formerShape(s),
    heading: s.at.allow(null),
    depth: s.depth,
    toTop: s.is,
    adjust: adjustShape(s),
    block: s.optional(s.at),
  })

export const adjustShape = (s: Shapes): Shape => s.optional(s.object({ by: s.alternatives([s.px, s.oneOf(FILLS)]), off: offShape(s) }))

export const skipShape = (s: Shapes): Shape => s.words

export const endSpaceShape = (s: Shapes): Shape =>
  s.optional(
    s.object({
      section: s.key,
      as: s.oneOf('padding', 'height'),
      on: s.array(s.object({ screen: s.key, fits: s.length, base: s.length }), 50),
    }),
  )

export const picturesShape = (s: Shapes): Shape =>
  s.optional(s.array(s.object({ at: s.at, width: s.count(1, 100000), height: s.count(1, 100000) }), 500))

export const formerShape = (s: Shapes): Shape => s.array(s.id, 200)

export const headerShape = (s: Shapes): Shape =>
  s
    .object({
      at: s.at,
      keep: s.oneOf('sticky', 'fixed', null),
      backing: s.colour.allow(null),
      off: offShape(s),
      steady: flagShape(s),
      under: s.optional(s.array(s.object({ screen: s.key, head: s.px, frame: s.px }), 100)),
      onScroll: s.optional(
        s.object({
          after: s.count(0, 5000),
          over: flagShape(s),
          clear: flagShape(s),
          shadow: flagShape(s),
          away: flagShape(s),
          small: s.optional(s.count(1, 400)),
          off: offShape(s),
        }),
      ),
    })
    .allow(null)

export const breathesShape = (s: Shapes): Shape => s.optional(s.array(s.object({ screen: s.key, px: s.px }), 100))
export const flagShape = (s: Shapes): Shape => s.optional(s.oneOf(true))

const setUpKeys = (s: Shapes) => ({
  sections: s.array(sectionShape(s), 5000),
  menus: s.array(menuShape(s), 50),
  links: s.optional(s.array(s.object({ at: s.at, target: targetShape(s), made: madeLinkShape(s) }), 5000)),
  motions: s.optional(s.array(s.object({ at: s.at, motion: motionShape(s).required() }), 5000)),
  header: headerShape(s),
  endSpace: endSpaceShape(s),
  pictures: picturesShape(s),
  scroller: s.optional(s.at),
  travel: s.object({
    smooth: s.is,
    timed: s.optional(timedShape(s)),
    breathing: s.px,
    breathes: breathesShape(s),
    pageOffsets: flagShape(s),
    address: addressRuleShape(s),
    follows: flagShape(s),
    skip: s.optional(skipShape(s)),
    takesPresses: flagShape(s),
    estimates: flagShape(s),
  }),
  highlight: s.object({ bellOffset: s.px, pageMark: flagShape(s) }),
})

export const setUpShape = (s: Shapes): Shape => s.object(setUpKeys(s))
export const revisionShape = (s: Shapes): Shape => s.object({ ...setUpKeys(s), source: s.hash, title: s.text })
export const pageShape = (s: Shapes): Shape => s.object({ key: s.key, file: s.file, source: s.hash, title: s.text, ...setUpKeys(s) })

/** Of a site. */
export const addressShape = (s: Shapes): Shape => s.optional(s.object({ url: s.folder, isWritten: s.optional(s.oneOf(true)) }))

export const ruleShape = (s: Shapes): Shape =>
  s.object({
    letters: s.oneOf('lower', 'as-typed'),
    separator: s.oneOf('-', '_', ''),
    prefix: s.short,
    suffix: s.short,
    wraps: s.is,
    longest: s.count(4, 200),
    accents: s.oneOf('folded', 'kept'),
    scripts: s.oneOf('transliterated', 'kept'),
    beforeDigit: s.short,
    dropped: s.array(s.short, 200),
  })

export const screenShape = (s: Shapes): Shape =>
  s.object({
    key: s.key,
    name: s.text,
    width: s.count(1, 20000),
    height: s.count(1, 20000),
    touch: s.is,
    text: s.optional(s.count(1, 1000)),
  })
