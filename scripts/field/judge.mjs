/* global innerWidth, innerHeight, CSS, Node, NodeFilter, getComputedStyle */
/**
 * Whether what a link is about can be read where the page stands now, and whether its menu says so. Runs in the page, and by the browser alone.
 * @param {[m: number, n: number, id: string]} link the n-th of the m-th menu, and what it leads to
 * @returns {{ landed: string, lit: string, scroll: number, top: number }} the first two empty where it is right, else what is wrong; where the page
 *   stands, and the target in the viewport, in px
 */
export function judge([m, n, id]) {
  const menu = document.querySelectorAll('[data-wb-menu]')[m]
  const link = menu.querySelectorAll('a')[n]
  const target = id === '' ? null : (document.getElementById(id) ?? document.querySelector(`a[name="${CSS.escape(id)}"]`))
  // The page as a whole begins at its top.
  const isTop = id === '' || target === document.body || target === document.documentElement || (!target && id.toLowerCase() === 'top')
  const down = Math.max(...[document.scrollingElement, ...document.querySelectorAll('[data-wb-scroller]')].map((e) => e?.scrollTop ?? 0))
  const landed = () => {
    if (isTop) return down < 2 ? '' : `stands at ${Math.round(down)} and not at the top`
    if (!target) return 'has no target'
    const shown = (el) => el.checkVisibility({ visibilityProperty: true }) && el.getBoundingClientRect().height > 0
    const headings = 'h1,h2,h3,h4,h5,h6,[role=heading]'
    const empty = !target.textContent.trim() && !target.querySelector('img,svg,video,canvas')
    const follows = (el) => target.compareDocumentPosition(el) & Node.DOCUMENT_POSITION_FOLLOWING
    // An anchor in a heading, empty or not, is that heading's.
    const heading =
      target.closest(headings) ??
      (empty
        ? [...document.querySelectorAll(headings)].find((h) => follows(h) && shown(h))
        : [...target.querySelectorAll(headings)].find(shown))
    const firstWords = (within, fits) =>
      document
        .createTreeWalker(within, NodeFilter.SHOW_TEXT, (n) =>
          n.nodeValue.trim() && shown(n.parentElement) && fits(n) ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
        )
        .nextNode()
    // What is empty and stands before no heading is about the words behind it.
    const behind = empty && !heading ? firstWords(document.body, follows) : null
    const el = heading ?? behind?.parentElement ?? target
    if (!shown(el)) return 'leads to what cannot be seen on this screen'
    // Of what has no heading, where its first words stand.
    const words = heading ? null : (behind ?? firstWords(el, () => true))
    const range = document.createRange()
    if (words) range.selectNodeContents(words)
    const box = words ? range.getBoundingClientRect() : el.getBoundingClientRect()
    const line = {
      x: Math.min(Math.max(box.left + Math.min(box.width / 2, 30), 1), innerWidth - 2),
      y: box.top + Math.min(box.height / 2, 20),
    }
    if (box.right < 1 || box.left > innerWidth - 1) return 'leads to what is out of view, sideways'
    if (line.y < 0 || line.y > innerHeight) return `leaves its heading out of view, at ${Math.round(box.top)}`
    const hit = document.elementFromPoint(line.x, line.y)
    for (let e = hit; e && !e.contains(el); e = e.parentElement) {
      const { position, backgroundColor, opacity } = getComputedStyle(e)
      const isOver = position === 'fixed' || position === 'sticky'
      // What is opaque over a heading and no part of it hides it, also where it only lies there now.
      const isOpaque = opacity === '1' && (backgroundColor.startsWith('rgb(') || e.matches('img,video,canvas,iframe'))
      if (isOver || (isOpaque && !el.contains(e))) return `leaves its heading under “${e.id || e.className || e.localName}”`
    }
    const top = target.getBoundingClientRect().top
    let scroller = el.parentElement
    while (scroller && !(scroller.scrollHeight > scroller.clientHeight + 2 && /auto|scroll/.test(getComputedStyle(scroller).overflowY)))
      scroller = scroller.parentElement
    const s = scroller ?? document.scrollingElement
    const atEnd = s.scrollTop >= s.scrollHeight - s.clientHeight - 2
    // Further down than half the screen it is not what one pressed for, unless the page ends there.
    if (Math.min(top, box.top) > innerHeight / 2 && !atEnd) return `stops short: it begins at ${Math.round(top)}`
    if (top < -innerHeight / 2 && box.top < 0) return `goes too far: it begins at ${Math.round(top)}`
    return ''
  }
  const lit = () => {
    const marked = [...menu.querySelectorAll('a[aria-current]')].filter((a) => a.getAttribute('aria-current') !== 'false')
    // One that marks its items by itself may say so by a class.
    const named = /(^|[\s_-])(active|current|selected)([\s_-]|$)/
    if (!marked.length)
      marked.push(
        ...[...menu.querySelectorAll('a[href]')].filter((a) => named.test(a.className) || named.test(a.closest('li')?.className ?? '')),
      )
    const same = (a) => decodeURI(a.hash) === decodeURI(link.hash)
    if (!marked.length) return 'is not marked'
    if (!marked.every(same)) return `has “${marked.map((a) => a.textContent.trim())}” marked`
    const shown = [...menu.querySelectorAll('a[href]')].filter((a) => a.checkVisibility({ visibilityProperty: true }))
    const others = shown.filter((a) => !marked.includes(a))
    const looks = [
      'color',
      'fontWeight',
      'fontSize',
      'textDecorationLine',
      'textDecorationThickness',
      'backgroundColor',
      'backgroundImage',
      'borderBottomWidth',
      'borderBottomColor',
      'borderBottomStyle',
      'boxShadow',
      'outlineStyle',
      'opacity',
    ]
    const look = (el, pseudo) => looks.map((name) => getComputedStyle(el, pseudo)[name]).join()
    const apart = (a, b) => {
      for (let [x, y] = [a, b]; x && y && x !== menu && y !== menu && x !== y; [x, y] = [x.parentElement, y.parentElement])
        if (look(x) !== look(y) || look(x, '::before') !== look(y, '::before') || look(x, '::after') !== look(y, '::after')) return true
      return false
    }
    const current = marked.filter((a) => shown.includes(a))
    if (!current.length) {
      // In a closed list its parent has to say it; a menu that is closed as a whole has nobody to say it to.
      if (!shown.length) return ''
      const group = marked[0].closest('ul ul, ol ol, details')?.parentElement?.closest('li') ?? marked[0].closest('details')
      const head = group?.querySelector('summary, span, a, button')
      const sibling =
        head &&
        [...menu.querySelectorAll('summary, a, span, button')].find(
          (e) => e !== head && e.localName === head.localName && shown.includes(e),
        )
      if (group?.matches('[data-wb-within]')) return ''
      return head && (head.matches('[aria-current], [data-wb-within]') || (sibling && apart(head, sibling)))
        ? ''
        : 'is marked in a closed list, and nothing in view says so'
    }
    return !others.length || current.some((a) => others.every((b) => apart(a, b))) ? '' : 'is marked, and looks as the others do'
  }
  const inner = [...document.querySelectorAll('[data-wb-scroller]')].find((e) => e.scrollHeight > e.clientHeight && e.contains(target))
  const top = (target?.getBoundingClientRect().top ?? 0) - (inner ? inner.getBoundingClientRect().top + inner.clientTop : 0)
  return { landed: landed(), lit: lit(), scroll: down, top }
}
