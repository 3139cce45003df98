/** Found menus: marks, links, labels and order, in each of their elements. */
import { LOOK, madeText, markText, MENU, MOTION, motionText, SHUT_BY, SHUTS, type Mark } from '../../contract/index.ts'
import type { ElementAt, PageLink } from '../../page/index.ts'
import { lookWords, marksByLook } from '../../menus/index.ts'
import { isFound, wayOf, type FoundForm, type Item, type Menu, type SitePage, type Ways } from '../../site/index.ts'
import type { For, PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'
import { orderEdits, type Ordered } from '../order.ts'
import { attributesOf, planTarget } from './target.ts'

type FoundMenu = Menu & { form: FoundForm }

export const planFoundMenus = (input: WritingInput): PlannedEdit[] => {
  const links = new Map(input.reading.links.map((l) => [l.at, l]))
  return [...input.page.menus.filter(isFound).flatMap((menu) => planMenu(menu as FoundMenu, links, input)), ...planShuts(input.page)]
}

function planMenu(menu: FoundMenu, links: ReadonlyMap<ElementAt, PageLink>, { page, reading, ways }: WritingInput): PlannedEdit[] {
  const marked = page.highlight.pageMark ? [] : menu.form.elements
  const marks = marked.map((at): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: MENU, value: markText(markOf(menu)) },
    why: `Marks the menu “${menu.name}”.`,
    for: { menu: menu.key },
    layout: null,
  }))
  const number = page.menus.filter((m) => isFound(m) && m.look).indexOf(menu) + 1
  const looks = (menu.look ? menu.form.elements : []).map((at): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: LOOK, value: madeText({ number, part: 0, form: 'found', words: lookWords(menu.look!) }) },
    why: `Look of the states of “${menu.name}”.`,
    for: { menu: menu.key },
    layout: null,
  }))
  const motions = (menu.motion ? menu.form.elements : []).map((at): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: MOTION, value: motionText(menu.motion!) },
    why: `Motion of the menu “${menu.name}”.`,
    for: { menu: menu.key },
    layout: null,
  }))
  const items = menu.items.flatMap((item) => item.links.flatMap((at) => planItem(menu, item, links.get(at), ways)))
  const orders = menu.form.elements.flatMap((at): PlannedEdit[] => {
    const read = reading.menus.find((m) => m.at === at)
    if (!read?.tree) return []
    return orderEdits(read.tree, orderIn(menu, new Set(read.links), ways, reading.baseLeaves)).map((edit) => ({
      edit,
      why: `Items of the menu “${menu.name}”, in order.`,
      for: { menu: menu.key },
      layout: JSON.stringify(edit),
    }))
  })
  return [...marks, ...looks, ...motions, ...items, ...orders]
}

/** One button may close several. */
function planShuts({ menus }: SitePage): PlannedEdit[] {
  const shut = menus.filter((m): m is FoundMenu => isFound(m) && m.form.shutBy !== undefined)
  const numbersBy = new Map<ElementAt, number[]>()
  const edit = (at: ElementAt, name: string, value: string, why: string, about: For = {}): PlannedEdit => ({
    edit: { kind: 'attribute', at, name, value },
    why,
    for: about,
    layout: null,
  })
  const marks = shut.flatMap(({ key, name, form: { shutBy, elements } }, n) => {
    numbersBy.set(shutBy!, [...(numbersBy.get(shutBy!) ?? []), n + 1])
    return elements.map((at) => edit(at, SHUT_BY, `${n + 1}`, `The menu “${name}” closes after a press in it.`, { menu: key }))
  })
  return [...marks, ...[...numbersBy].map(([at, numbers]) => edit(at, SHUTS, numbers.join(' '), 'The button that closes a menu.'))]
}

/** A class of the page's own is moved as well. */
export const markOf = (menu: FoundMenu): Mark => {
  const mark = menu.form.mark ?? 'line'
  return typeof mark === 'string' && marksByLook(menu) ? 'page' : mark
}

function planItem(menu: Menu, item: Item, link: PageLink | undefined, ways: Ways): PlannedEdit[] {
  if (!link) return []
  const { at } = link
  const about = { menu: menu.key, item: item.key }
  // Buttons and openers have no address.
  const isBare = link.status === 'button' || link.status === 'group'
  const way = isBare ? { href: null, isNewTab: false, isHere: false } : wayOf(item.target, ways)
  // `#top` and the like stay as they are.
  const isTop = item.target.kind === 'top' && link.status === 'top'
  const out = planTarget(link, isTop ? { ...way, href: null } : way, `the item “${item.label}”`, item, about)
  if (item.label !== link.label && link.plain)
    out.push({
      edit: { kind: 'label', at, text: item.label },
      why: `The label of the item “${item.label}”.`,
      for: about,
      layout: `label ${at} ${item.label}`,
    })
  return out
}

/** The menu's items in one of its elements. */
function orderIn(menu: Menu, own: ReadonlySet<ElementAt>, ways: Ways, baseLeaves: boolean): Ordered[] {
  return menu.items.flatMap((item): Ordered[] => {
    const link = item.links.find((at) => own.has(at))
    if (link !== undefined) return [{ link }]
    const way = wayOf(item.target, ways)
    const { href } = way
    // Items that the page has in another element aren't added here.
    return item.links.length || href === null ? [] : [{ label: item.label, attributes: attributesOf({ ...way, href }, item, baseLeaves) }]
  })
}
