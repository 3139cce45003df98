/** Colours as CSS has them: told apart, laid over each other and compared. @see CSS Color 4; WCAG 2.2, contrast ratio */
import {
  blend,
  formatHex,
  formatRgb,
  interpolate,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeA98,
  modeLrgb,
  modeRgb,
  modeXyz50,
  modeXyz65,
  parse,
  useMode,
  wcagContrast,
  type Color,
} from 'culori/fn'

// What a browser gives as a computed value.
for (const mode of [
  modeRgb,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeLrgb,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeA98,
  modeXyz50,
  modeXyz65,
])
  useMode(mode as typeof modeRgb)

/** A colour as a computed value has it, and nothing else, so that it can stand in a style. */
export const COLOUR = /^(?:rgb|rgba|hsl|hsla|hwb|lab|lch|oklab|oklch|color)\([\w.,/ %+-]+\)$/

/** Null for what is no colour. */
function read(text: string): Color | null {
  return (COLOUR.test(text) && parse(text)) || null
}

/** The ratio of a text's colour, with its own alpha, to what is opaque behind it, from 1 to 21; null where one of them is no colour. */
export function contrast(text: string, behind: string): number | null {
  const [over, under] = [read(text), read(behind)]
  if (!over || !under || (under.alpha ?? 1) < 1) return null
  return wcagContrast(blend([under, over], 'normal'), under)
}

/** One colour with its alpha over another that is opaque, channel by channel in sRGB, as browsers paint it; what is no colour leaves that as it is. */
export function laidOver(over: string, under: string): string {
  const [top, bottom] = [read(over), read(under)]
  return top && bottom ? formatRgb(blend([bottom, top], 'normal')) : under
}

/** So many % of the way from one colour to another, as `#rrggbb`. */
export function mixed(from: string, to: string, percent: number): string {
  const [a, b] = [read(from), parse(to)!]
  return formatHex(interpolate([a ?? b, b], 'rgb')(percent / 100))
}

/** As a sheet shows it: `#rrggbb`, and its opacity in %; null for what is no colour. */
export function readColour(text: string): { hex: string; opacity: number } | null {
  const colour = read(text)
  return colour && { hex: formatHex(colour), opacity: Math.round((colour.alpha ?? 1) * 100) }
}

/** What text needs to be read. @see WCAG 2.2, 1.4.3 */
export const READABLE = 4.5
const LIGHT = 'rgb(255, 255, 255)'
const DARK = 'rgb(24, 24, 24)'

/** The background that the page has; where the text cannot be read on that, white or near-black, whichever it is read on better. */
export function backingFor(text: string, background: string): string {
  const [own, light, dark] = [contrast(text, background), contrast(text, LIGHT), contrast(text, DARK)]
  if (light === null || dark === null || (own !== null && own >= READABLE)) return background
  return light >= dark ? LIGHT : DARK
}
