/** Attributes and properties that a handover writes, and that agent and script look for. */

/** On each of our pieces; the value is its role. */
export const PIECE = 'data-wb'
/** On every element of a menu, found or made. */
export const MENU = 'data-wb-menu'
/** On the page's header; the value says how we keep it in view, empty if the page does. */
export const HEADER = 'data-wb-header'
/** On a header that shrinks by itself but keeps its space. */
export const STEADY = 'data-wb-steady'
/**
 * On a header that changes on scroll: px, or `#` and the ID of the section that must have scrolled past; with `away` if it hides on the
 * way down.
 */
export const MOVES = 'data-wb-moves'
/** On an element in such a header whose padding shrinks; its number. */
export const GIVES = 'data-wb-gives'
/** Set by the script on such a header: `top` or `moved`, with `away` while hidden. */
export const AT = 'data-wb-at'
/** Transitions of such a header; the page's own ones come first. */
export const GLIDES = 'translate 0.2s, background-color 0.2s, box-shadow 0.2s'
/** On an element in which the page scrolls instead of the document. */
export const SCROLLER = 'data-wb-scroller'
/** On the element that holds the end space. */
export const ROOM = 'data-wb-room'
/** On an element with points before it; their number. */
export const ANCHOR = 'data-wb-anchor'

/** On a picture that got width and height from us. */
export const SIZED = 'data-wb-sized'
/**
 * Such a picture's height follows its width unless the page says otherwise.
 * @see HTML Standard, "Attributes for embedded content and images"
 */
export const SIZED_RULE = `:where([${SIZED}]) {\n  height: auto;\n}`

/** On an element that is laid out late and gets an estimated height; its number. */
export const ESTIMATE = 'data-wb-estimate'

/** A valid `lang`. @see BCP 47 */
export const LANGUAGE = /^[a-z]{2,8}(-[a-z0-9]{1,8})*$/i

/** For links that open in a new tab, which gets no access to this one. */
export const NEW_TAB = { target: '_blank', rel: 'noopener' }
/** For links to this page that would otherwise open in another tab. */
export const SAME_TAB = { target: '_self' }

/** Covered height at the viewport's top on arrival, in px. */
export const COVER = '--wb-header'
/** The page's own header's part of it. */
export const OWN_COVER = '--wb-own'
/** px that the page still moves up by once its header has its scrolled state. */
export const AHEAD = '--wb-ahead'
/**
 * Change of the header's height after scrolling (negative: it shrinks), and how far that moves the sections, in px; `unknown` if not
 * measured, absent if it keeps its size.
 */
export const GROWS = '--wb-grows'
export const SHIFTS = '--wb-shifts'
/** For a header that keeps its space: height at rest and how much it shrinks, in px; `none` if it takes no space. */
export const TALL = '--wb-tall'
export const SMALLER = '--wb-smaller'

/** On a made menu: its number on the page and its form, see `made-words.ts`. */
export const MADE = 'data-wb-made'
/** The made bar across the viewport's top. */
export const MADE_BAR = `nav[${PIECE}="menu"][${MADE}~="bar"]`
/** On a link or menu element with a motion of its own, see `motion.ts`. */
export const MOTION = 'data-wb-motion'
/** Event on a live page's document: the application follows the hash in its detail. */
export const FOLLOWS = 'waybell-follow'
/** Event that makes the page's script forget the followed link, before a measurement scrolls the page. */
export const LETS_GO = 'waybell-lets-go'
/** On a link made from a button. */
export const WAS = 'data-wb-was'
/** On a found menu whose items have styled states; same format as `data-wb-made`. */
export const LOOK = 'data-wb-look'
/** On elements that aren't on some screens; their names. */
export const OFF = 'data-wb-off'
/** On a found menu and the button that closes it after a press; a number, or several on a shared button. */
export const SHUT_BY = 'data-wb-shut-by'
export const SHUTS = 'data-wb-shuts'
/** On a made menu while it is hidden. */
export const AWAY = 'data-wb-away'

/** On the opener of the list that holds the current item. */
export const WITHIN = 'data-wb-within'
