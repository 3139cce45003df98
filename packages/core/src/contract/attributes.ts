/** Names that a handover writes into pages, and that agent and script look for. */

/** On each piece of ours; its value is the piece's role. */
export const PIECE = 'data-wb'
/** On every element that a menu stands in, adopted or made. */
export const MENU = 'data-wb-menu'
/** On the page's own header; its value says how it is made to stay, and is empty where the page sees to that itself. */
export const HEADER = 'data-wb-header'
/** On a header that is smaller once the page has moved, and keeps its place then. */
export const STEADY = 'data-wb-steady'
/** On a header that does something once the page has been scrolled: by how many px, or `#` and the ID of what is to have gone by, and `away` where it leaves on the way down. */
export const MOVES = 'data-wb-moves'
/** On what in such a header gives up padding, where that is not the header itself; its number. */
export const GIVES = 'data-wb-gives'
/** On the same: `top` or `moved`, with `away` while it is away; the script says so. */
export const AT = 'data-wb-at'
/** What of such a header is brought to its other state bit by bit, as a style says it; what else the page's own style does so goes before it. */
export const GLIDES = 'translate 0.2s, background-color 0.2s, box-shadow 0.2s'
/** On an element in which the page scrolls instead of the document. */
export const SCROLLER = 'data-wb-scroller'
/** On an element that room at the page's end is left in, behind all that it holds. */
export const ROOM = 'data-wb-room'
/** On an element that points stand before; its value is their number. */
export const ANCHOR = 'data-wb-anchor'

/** On a picture whose width and height were said, which said neither. */
export const SIZED = 'data-wb-sized'
/** Such a picture is as high as its width makes it, unless the page says otherwise. @see HTML Standard, "Attributes for embedded content and images" */
export const SIZED_RULE = `:where([${SIZED}]) {\n  height: auto;\n}`

/** On what is laid out only when it is near, and whose height until then is said in the style; its number. */
export const ESTIMATE = 'data-wb-estimate'

/** What may stand as `lang`. @see BCP 47 */
export const LANGUAGE = /^[a-z]{2,8}(-[a-z0-9]{1,8})*$/i

/** On a link that opens in a tab of its own, which gets no hold of this one. */
export const NEW_TAB = { target: '_blank', rel: 'noopener' }
/** Of one that would be followed in another tab, and leads to a place of its page. */
export const SAME_TAB = { target: '_self' }

/** What covers the viewport's top on arrival, in px. */
export const COVER = '--wb-header'
/** Of that, what the page's own header covers. */
export const OWN_COVER = '--wb-own'
/** What the page still moves up by, in px, once its header has the state that it has on arrival. */
export const AHEAD = '--wb-ahead'
/** What the page's header changes by once the page has moved (negative: it shrinks), and how far that moves the sections down, in px; `unknown` where nobody measured it, not said where it keeps its size. */
export const GROWS = '--wb-grows'
export const SHIFTS = '--wb-shifts'
/** Of a header that keeps its place: its height at rest, and by how much it is smaller once the page has moved, in px; `none` where it takes nothing from the page. */
export const TALL = '--wb-tall'
export const SMALLER = '--wb-smaller'

/** On a menu that is made; its value says which one of the page's it is and in what form, see `made-words.ts`. */
export const MADE = 'data-wb-made'
/** The menu that is made as a bar across the viewport's top, which covers that. */
export const MADE_BAR = `nav[${PIECE}="menu"][${MADE}~="bar"]`
/** On a link, or on what a menu stands in: how links there travel, where that is not as all on the page do, see `motion.ts`. */
export const MOTION = 'data-wb-motion'
/** Event on a live page's document: the application follows the hash in its detail. */
export const FOLLOWS = 'waybell-follow'
/** Name of an event by which the page's script lets go of what was followed: who measures moves the page as nobody who follows links does. */
export const LETS_GO = 'waybell-lets-go'
/** On a link that was made of a button. */
export const WAS = 'data-wb-was'
/** On a menu that the page has, where states of its items were given a look; which one it is, and these, as in `data-wb-made`. */
export const LOOK = 'data-wb-look'
/** On what is not on some screens; their names. */
export const OFF = 'data-wb-off'
/** On a menu of the page's own, and on what is pressed to shut it behind a press in it; the value is a number, of what shuts several all of theirs. */
export const SHUT_BY = 'data-wb-shut-by'
export const SHUTS = 'data-wb-shuts'
/** On a made menu while it is hidden. */
export const AWAY = 'data-wb-away'

/** Words or a link in a menu that open the list in which the current item stands. */
export const WITHIN = 'data-wb-within'
