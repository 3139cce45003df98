/**
 * Single-page sites made from a seed: sections of random heights, headers that stay, shrink or hide, pictures without a size, closed `details`,
 * snapping, page scripts that take presses. Each is written like one of several hands would write it.
 */

/** A source of numbers from 0 to 1 that is the same in every run. */
export function random(seed) {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const NAMES =
  'Orchard Cellar Press Bottles Harvest Visit Stories Prices Workshop Boats Timber Sails Crew Harbour Tides Maps Weather Looms Dyes Wool Shears Fairs Ledger Post'.split(
    ' ',
  )
const WORDS =
  'The first frost brings in the last of the fruit and the old press starts to turn before dawn while neighbours carry baskets down from the hill and someone always brings bread'.split(
    ' ',
  )

/**
 * @param {number} seed
 * @returns {{ html: string, traits: string[], pictures: { path: string, width: number, height: number }[] }} `traits` in words; `pictures` lie
 *   beside the page
 */
export function pageOf(seed) {
  const next = random(seed)
  const chance = (p) => next() < p
  const int = (from, to) => from + Math.floor(next() * (to - from + 1))
  const pick = (...all) => all[Math.floor(next() * all.length)]
  const traits = []
  const has = (trait, p) => {
    const is = chance(p)
    if (is) traits.push(trait)
    return is
  }
  const names = [...NAMES].sort(() => next() - 0.5).slice(0, int(3, 8))
  const text = (n) => {
    const from = int(0, WORDS.length - 1)
    return Array.from({ length: n }, (_, i) => WORDS[(from + i * 7) % WORDS.length]).join(' ')
  }

  const header = pick('static', 'sticky', 'fixed', 'shrinks', 'hides', 'sticky', 'fixed', 'fixed later')
  traits.push(`header ${header}`)
  const height = int(40, 96)
  const isPlain = has('div soup', 0.3)
  const [outer, part, bar] = isPlain ? ['div', 'div', 'div'] : ['main', 'section', 'header']
  const css = []
  const scripts = []
  const pictures = []
  css.push(
    '*{box-sizing:border-box}',
    `body{margin:0;font:${int(14, 19)}px/${pick('1.4', '1.5', '1.7')} ${pick('sans-serif', 'Georgia,serif')}}`,
  )
  css.push(`.bar{display:flex;gap:18px;align-items:center;height:${height}px;padding:0 ${int(8, 40)}px;background:#fff;z-index:9}`)
  css.push(
    '.bar ul{display:flex;gap:14px;list-style:none;margin:0;padding:0;overflow-x:auto}',
    '.bar a{color:#223;text-decoration:none;white-space:nowrap}',
  )
  if (header === 'sticky') css.push('.bar{position:sticky;top:0}')
  const isFixed = header !== 'static' && header !== 'sticky' && header !== 'fixed later'
  if (isFixed) css.push('.bar{position:fixed;top:0;left:0;right:0}')
  if (header === 'fixed later') {
    css.push('.bar.stays{position:fixed;top:0;left:0;right:0}')
    scripts.push(`addEventListener('scroll',function(){document.querySelector('.bar').classList.toggle('stays',scrollY>${int(100, 300)})})`)
  }
  const isPushed = isFixed && !has('first section under the header', 0.3)
  if (isPushed) css.push(`body{padding-top:${height}px}`)
  if (header === 'shrinks') {
    const [after, small, time] = [int(10, 200), int(30, height - 8), pick(0, 200, 300)]
    css.push(`.bar.small{height:${small}px}`, time ? `.bar{transition:height ${time}ms}` : '')
    scripts.push(`addEventListener('scroll',function(){document.querySelector('.bar').classList.toggle('small',scrollY>${after})})`)
  }
  if (header === 'hides') {
    css.push(`.bar{transition:transform .25s}.bar.up{transform:translateY(-100%)}`)
    scripts.push(
      `var was=0;addEventListener('scroll',function(){document.querySelector('.bar').classList.toggle('up',scrollY>was&&scrollY>${int(60, 200)});was=scrollY})`,
    )
  }
  if (header === 'static' && has('scrolls in an element', 0.4))
    css.push('html,body{height:100%}', 'body{display:flex;flex-direction:column}', '.pane{flex:1;overflow-y:auto}')
  if (has('fractional sizes', 0.2)) css.push(`body{line-height:1.37}.part{border-top:0.6px solid #999}`)
  if (has('zoomed', 0.06)) css.push(`.part{zoom:${pick('0.9', '1.1', '1.25')}}`)
  if (has('right to left', 0.08)) css.push('html{direction:rtl}')
  if (has('banner that comes late', 0.12))
    scripts.push(
      `setTimeout(function(){var b=document.createElement('p');b.textContent='Free delivery this week';b.style='margin:0;height:${int(30, 90)}px;background:#dde';document.querySelector('.part').before(b)},${int(50, 900)})`,
    )
  if (has('own smooth scrolling', 0.25)) css.push('html{scroll-behavior:smooth}')
  if (has('own scroll padding', 0.15)) css.push(`html{scroll-padding-top:${int(0, 120)}px}`)
  if (has('own scroll margins', 0.15)) css.push(`.part{scroll-margin-top:${int(0, 120)}px}`)
  if (has('snapping', 0.12)) css.push(`html{scroll-snap-type:y ${pick('proximity', 'mandatory')}}.part{scroll-snap-align:start}`)
  const isFull = has('full-height sections', 0.2)
  if (isFull) css.push('.part{min-height:100vh}')
  if (has('margins that collapse', 0.3)) css.push(`.part{margin:${int(10, 90)}px 0}`)
  else css.push(`.part{padding:${int(0, 90)}px 5%}`)
  if (has('scripted presses', 0.12))
    scripts.push(
      `document.querySelectorAll('.bar a').forEach(function(a){a.addEventListener('click',function(e){e.preventDefault();` +
        pick(
          `document.querySelector(a.hash).scrollIntoView({behavior:'smooth'})`,
          `scrollTo({top:document.querySelector(a.hash).offsetTop-${height},behavior:'smooth'})`,
          `document.querySelector(a.hash).scrollIntoView();history.pushState(null,'',a.hash)`,
        ) +
        `})})`,
    )
  const idOn = pick('part', 'part', 'heading', 'part', 'none')
  if (idOn !== 'part') traits.push(idOn === 'none' ? 'no IDs' : 'IDs on headings')
  const idOf = (name) => name.toLowerCase()
  const hasPictures = has('pictures without a size', 0.35)
  const isLazy = hasPictures && has('lazy pictures', 0.6)
  const hasDetails = has('closed details', 0.25)
  const isLate = has('late blocks', 0.12)
  const parts = names.map((name, i) => {
    const isLast = i === names.length - 1
    const level = pick('h2', 'h2', 'h2', 'h3')
    const body = [`<p>${text(int(5, 60))}.</p>`]
    const min = isFull ? 0 : isLast && chance(0.5) ? int(40, 200) : int(120, 1300)
    if (hasPictures && chance(0.5)) {
      const picture = { path: `p${i}.svg`, width: int(200, 1200), height: int(150, 900) }
      pictures.push(picture)
      body.push(`<img src="${picture.path}" alt=""${isLazy ? ' loading="lazy"' : ''} style="max-width:100%">`)
    }
    const isFolded = hasDetails && i > 0 && !isLast && chance(0.25)
    if (hasDetails && chance(0.5)) body.push(`<details><summary>More</summary><p>${text(int(20, 120))}</p></details>`)
    const style = min ? ` style="min-height:${min}px${isLate && i % 2 ? `;content-visibility:auto` : ''}"` : ''
    const id = (place) => (idOn === place ? ` id="${idOf(name)}"` : '')
    const whole = `<${part} class="part${i % 2 ? ' odd' : ''}"${id('part')}${style}>\n<${level}${id('heading')}>${name}</${level}>\n${body.join('\n')}\n</${part}>`
    return isFolded ? `${whole}\n<details><summary>Notes</summary><p>${text(90)}</p></details>` : whole
  })
  const items = names.map((name) => `<a href="#${idOf(name)}">${name}</a>`)
  const isPane = traits.includes('scrolls in an element')
  const list = isPlain ? `<div class="nav">${items.join(' ')}</div>` : `<nav><ul>${items.map((a) => `<li>${a}</li>`).join('')}</ul></nav>`
  const head = `<${bar} class="bar"><b>${pick('Alder', 'Birch', 'Cedar')} ${pick('Yard', 'House')}</b>${list}</${bar}>`
  const hero = has('hero', 0.4) ? `<div class="hero" style="height:${pick('60vh', '100vh', '320px')}"><h1>${text(3)}</h1></div>` : ''
  css.push('.odd{background:#f4f1ea}')
  const foot = has('footer', 0.5) ? `<footer style="padding:${int(10, 160)}px 20px">${text(6)}</footer>` : ''
  const script = scripts.length ? `<script>${scripts.join(';')}</script>` : ''
  const html = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${text(2)}</title><meta name="viewport" content="width=device-width,initial-scale=1">
<style>${css.filter(Boolean).join('\n')}</style></head>
<body>${head}
${isPane ? '<div class="pane">' : ''}${hero}<${outer}>
${parts.join('\n')}
</${outer}>${foot}${isPane ? '</div>' : ''}${script}</body></html>
`
  return { html, traits, pictures }
}
