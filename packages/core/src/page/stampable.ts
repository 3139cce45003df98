/** Which elements can be named in the live page. */
import { inlineTags, type El } from './tree.ts'

export const isStampable = (el: El): boolean =>
  el.at >= 0 && el.isHtml && !['html', 'head', 'body'].includes(el.tag) && el.parent?.tag !== 'head' && (!inlineTags.has(el.tag) || el.tag === 'a' || el.attrs.has('id'))
