/** What only a browser shows of pages in `pages/field`: built from a terminal, opened as a visitor. */
import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { coveredEdge } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'

/** Enough for these tests; `npm run field` uses all five screens. */
const SCREENS = ['laptop', 'phone']
const sourceOf = (name: string) => join(repository, 'e2e/pages/field', name, 'index.html')

interface Report {
  sections: { id: string; title: string }[]
  links: { screen: string; label: string; fault: string | null }[]
  findings: { code: string; message: string }[]
}

async function built(name: string, screens = SCREENS): Promise<{ report: Report; file: string; said: string }> {
  const out = freshFolder()
  const run = await waybellBuilt('build', sourceOf(name), '--out', out, '--screens', screens.join(), '--format', 'json')
  expect(run.stdout, run.stderr).not.toBe('')
  return { report: JSON.parse(run.stdout) as Report, file: join(out, 'index.html'), said: run.stderr }
}

const open = (page: Page, file: string) => page.goto(pathToFileURL(file).href)

/** Two frames, so that reactions to a scroll are done. */
const frames = (page: Page) =>
  page.evaluate(async () => {
    for (let n = 0; n < 4; n++) await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 20)))
  })

async function standAt(page: Page, y: number): Promise<void> {
  await page.evaluate((top) => scrollTo({ top, behavior: 'instant' }), y)
  await frames(page)
}

/** Items that look different from most of the menu's. */
const standingOut = (page: Page, menu: string) =>
  page.evaluate((selector) => {
    const links = [...document.querySelectorAll<HTMLElement>(`${selector} a`)]
    const looks = links.map((a) => {
      const s = getComputedStyle(a)
      return [s.color, s.backgroundColor, s.textDecorationLine, s.boxShadow, s.fontWeight].join()
    })
    const common = looks.reduce((most, look) => (count(look) > count(most) ? look : most), looks[0]!)
    function count(look: string) {
      return looks.filter((l) => l === look).length
    }
    return links.filter((_, n) => looks[n] !== common).map((a) => a.textContent.trim())
  }, menu)

test('a page that works already is handed back unchanged, and its links are tried', async () => {
  const { report, file, said } = await built('works')
  expect(readFileSync(file).equals(readFileSync(sourceOf('works')))).toBe(true)
  expect(said).toContain('works already')
  expect(report.links).toHaveLength(4 * SCREENS.length)
  expect(report.links.filter((l) => l.fault)).toEqual([])
})

test('a page whose links arrive gets the missing mark, and no offset', async ({ page }) => {
  const { file, said } = await built('half-works')
  expect(said).toContain('What it lacked is added')
  expect(readFileSync(file, 'utf8').match(/scroll-padding-top:/g)).toHaveLength(1)
  await open(page, file)
  await page.getByRole('link', { name: 'Schedule' }).click()
  await expect(page.getByRole('link', { name: 'Schedule' })).toHaveAttribute('aria-current', 'true')
})

for (const [name, menu] of [
  ['active', '#balk'],
  ['spy', 'nav'],
  // Its script is right at this window height, but not in a taller window.
  ['nearly', 'nav'],
] as const)
  test(`on “${name}”, which marks an item already, never two are marked, wherever it stands`, async ({ page }) => {
    const { report, file } = await built(name)
    // Its links are small, too.
    expect(report.findings.filter((f) => f.code !== 'item-size')).toEqual([])
    await page.setViewportSize({ width: 1280, height: 800 })
    await open(page, file)
    const end = await page.evaluate(() => document.documentElement.scrollHeight - innerHeight)
    const seen = new Set<string>()
    const places = Array.from({ length: Math.ceil((end - 200) / 170) }, (_, n) => 200 + n * 170)
    for (const y of [...places, end]) {
      await standAt(page, y)
      const marked = await standingOut(page, menu)
      expect(marked, `at ${y}`).toHaveLength(1)
      const current = await page.locator(`${menu} a[aria-current="true"]`).allTextContents()
      expect(current.map((t) => t.trim())).toEqual(marked)
      seen.add(marked[0]!)
    }
    expect(seen.size).toBe(await page.locator(`${menu} a`).count())
  })

for (const [name, why] of [
  ['winner', 'the page’s own styles win over a mark'],
  ['underlined', 'every link of the menu is underlined'],
] as const)
  test(`where ${why}, one is chosen that shows`, async ({ page }) => {
    const { report, file } = await built(name)
    expect(report.links.filter((l) => l.fault)).toEqual([])
    await open(page, file)
    await page.locator('[data-wb-menu] a').nth(2).click()
    await expect.poll(() => standingOut(page, '[data-wb-menu]')).toHaveLength(1)
  })

test('targets moved up by the header arrive where their blocks start, under the header', async ({ page }) => {
  const { report, file } = await built('lifted')
  expect(report.links.filter((l) => l.fault)).toEqual([])
  for (const [width, header] of [
    [1280, 70],
    [390, 54],
  ] as const) {
    await page.setViewportSize({ width, height: 800 })
    await page.emulateMedia({ reducedMotion: 'reduce' })
    await open(page, file)
    for (const [label, heading, inside] of [
      ['Laying', 'Laying', 41],
      ['Orders', 'Orders', 0],
    ] as const) {
      await page.getByRole('link', { name: label }).click()
      await frames(page)
      const top = await page
        .getByRole('heading', { name: heading })
        .evaluate((el) => el.getBoundingClientRect().top - parseFloat(getComputedStyle(el).marginTop))
      expect(Math.abs(top - header - 24 - inside), `${label} at ${width}: ${top}`).toBeLessThanOrEqual(1.5)
      await expect(page.getByRole('link', { name: label })).toHaveAttribute('aria-current', 'true')
    }
  }
})

for (const [name, what] of [
  ['stuck', 'a header that knows that it is stuck by a hair above the top, and is smaller then'],
  ['upper-row', 'a header whose upper row goes out of view'],
  ['under-bar', 'a second bar that stays under the header'],
  ['firm-offsets', 'offsets of the page’s own by ID, in an attribute and by its script'],
  ['targeted', 'offsets of the page’s own for what is arrived at alone'],
] as const)
  test(`links arrive with ${what}`, async ({ page }) => {
    const { report, file } = await built(name)
    expect(report.links).toHaveLength(4 * SCREENS.length)
    expect(report.links.filter((l) => l.fault)).toEqual([])
    await page.emulateMedia({ reducedMotion: 'reduce' })
    for (const [width, height] of [
      [1280, 800],
      [390, 844],
      [1000, 700],
    ] as const) {
      await page.setViewportSize({ width, height })
      await open(page, file)
      // The first may go to the very top.
      for (const { id } of report.sections.slice(-3)) {
        await page.locator(`[data-wb-menu] a[href="#${id}"]`).click()
        const off = async () => {
          const top = await page.evaluate((to) => document.getElementById(to)!.getBoundingClientRect().top, id)
          return Math.abs(top - (await coveredEdge(page)) - 24)
        }
        await expect.poll(off, `${id} at ${width}`).toBeLessThanOrEqual(1)
        await frames(page)
        expect(await off(), `${id} at ${width}, a moment later`).toBeLessThanOrEqual(1)
      }
    }
    // Other elements keep the page's styles.
    if (name !== 'targeted') return
    await page.getByRole('link', { name: '1', exact: true }).click()
    await frames(page)
    expect(await page.evaluate(() => Math.round(document.getElementById('note')!.getBoundingClientRect().top))).toBe(280 + 96)
  })

test('a part fixed behind the page is reported if its link leaves it hidden', async () => {
  const { report } = await built('reveal')
  const [seen, hidden] = [report.links.filter((l) => l.label !== 'Where we are'), report.links.filter((l) => l.label === 'Where we are')]
  expect(seen.map((l) => l.fault)).toEqual(Array(3 * SCREENS.length).fill(null))
  expect(hidden.map((l) => l.fault)).toEqual(Array(SCREENS.length).fill('covered'))
})

test('a cover that returns on the way up is reported', async () => {
  const { report } = await built('panel-back')
  // The last isn't reached from below on every screen.
  const whys = report.links.flatMap((l) => ('why' in l && l.why !== '' ? l.why : []))
  expect(new Set(whys)).toEqual(new Set(['arrives under “.offer” when followed from further down']))
  for (const label of ['Bread', 'Baking days', 'The oven'])
    expect(report.links.filter((l) => l.label === label).map((l) => l.fault)).toEqual(Array(SCREENS.length).fill('covered'))
})

test('links arrive under a header that a script brings in, measured or not', async ({ page }) => {
  const { report, file } = await built('copied-header')
  // Including those of the copy.
  expect(report.links).toHaveLength(2 * 4 * SCREENS.length)
  expect(report.links.filter((l) => l.fault)).toEqual([])
  for (const [width, height] of [
    [1280, 800],
    [390, 844],
    [1000, 700],
  ] as const) {
    await page.setViewportSize({ width, height })
    await open(page, file)
    await page.locator('.bar:not(.copy) a[href="#flours"]').click()
    const gap = (id: string) => async () =>
      Math.round((await page.evaluate((to) => document.getElementById(to)!.getBoundingClientRect().top, id)) - (await coveredEdge(page)))
    await expect.poll(gap('flours'), `at ${width}`).toBe(24)
    await page.locator('.copy a[href="#bread"]').click()
    await expect.poll(gap('bread'), `on the way, at ${width}`).toBe(24)
    await page.locator('.copy a[href="#flours"]').click()
    await expect.poll(gap('flours'), `from below, at ${width}`).toBe(24)
  }
})

test('links to the page stay on it, whatever its base says', async ({ page, context }) => {
  const { report, file } = await built('leaves')
  expect(report.links.filter((l) => l.fault)).toEqual([])
  const told = report.findings.filter((f) => f.code === 'link-leaves').map((f) => f.message)
  expect(told).toEqual(['1 link (“a bread day”) leads to this page but opens in another tab, because the page’s <base> has a target.'])
  await open(page, file)
  for (const id of ['flours', 'miller']) {
    await page.locator(`[data-wb-menu] a[href="#${id}"]`).click()
    await expect(page).toHaveURL(new RegExp(`#${id}$`))
  }
  expect(context.pages()).toHaveLength(1)
  // Links that lead elsewhere work as in the page.
  expect(await page.getByRole('link', { name: 'what others say' }).getAttribute('target')).toBeNull()
})

test('an overlay is reported once, and links are tried as if it were gone', async ({ page }) => {
  const { report, file } = await built('veiled')
  expect(report.links).toHaveLength(4 * SCREENS.length)
  expect(report.links.filter((l) => l.fault)).toEqual([])
  expect(report.findings.filter((f) => f.code === 'overlay-blocks').map((f) => f.message)).toEqual([
    expect.stringContaining('“.ask” covers the page'),
  ])
  await open(page, file)
  await page.getByRole('button', { name: 'Yes' }).click()
  await page.locator('[data-wb-menu] a[href="#bread"]').click()
  const gap = () => page.evaluate(() => document.getElementById('bread')!.getBoundingClientRect().top)
  await expect.poll(async () => Math.round((await gap()) - (await coveredEdge(page)))).toBe(24)
})

test('a menu beside the viewport without opener on a screen is used where it opens', async () => {
  const { report } = await built('pushes')
  // The other is visible except on the phone.
  expect(report.links).toHaveLength(4 * SCREENS.length)
  expect(report.links.flatMap((l) => (l.fault ? l.screen : []))).toEqual(Array(4).fill('phone'))
  expect(report.findings.map((f) => f.code)).toContain('menu-left-open')
})

test('a header that leaves less than half of a screen is reported, with what it covers', async () => {
  const { report } = await built('tall-bar', ['laptop', 'phone-lying'])
  const bad = report.links.filter((l) => l.fault)
  expect(new Set(bad.map((l) => `${l.screen} ${l.fault}`))).toEqual(new Set(['phone-lying covered']))
  expect(report.findings.filter((f) => f.code === 'header-tall').map((f) => f.message)).toContainEqual(
    expect.stringMatching(/^On “Phone, landscape” the header takes \d+ of 390 px, more than half of the screen/),
  )
})

test('a policy of the page that blocks a handover is reported, and seen', async () => {
  const { report } = await built('policy')
  expect(report.findings.filter((f) => f.code === 'policy-blocks').map((f) => f.message)).toEqual([
    expect.stringContaining('blocks inline scripts, so'),
  ])
  expect(new Set(report.links.map((l) => l.fault))).toEqual(new Set(['unlit']))
})

test('headings without heading tags are found by their look', async () => {
  const { report } = await built('by-look')
  expect(report.sections.map((s) => s.title).slice(-4)).toEqual(['What we carry', 'How it is done', 'What it costs', 'Ring us'])
  expect(report.links.filter((l) => l.fault)).toEqual([])
})

test('parts hidden on all screens are no sections; those visible on one are reported', async () => {
  const { report } = await built('folded')
  expect(report.sections.map((s) => s.title)).toEqual(['Shapes', 'Felt', 'Fit', 'The workshop in pictures', 'Find us'])
  expect(report.findings.map((f) => f.message).join()).toContain('Links to “The workshop in pictures” do nothing on “Phone”')
})

for (const [name, links] of [
  ['clocks', 4],
  ['subnav', 4],
  ['mega', 7],
  // One header for wide screens, another for narrow ones.
  ['two-bars', 4],
  // It nearly fills a screen, and scrolls once a menu is made.
  ['just-fits', 4],
] as const)
  test(`every link of “${name}” arrives and is seen to be marked`, async () => {
    const { report } = await built(name)
    expect(report.links).toHaveLength(links * SCREENS.length)
    expect(report.links.filter((l) => l.fault)).toEqual([])
  })

test('targets that paint nothing above their headings are judged by the headings', async ({ page }) => {
  const { report, file } = await built('ghosts')
  expect(report.links).toHaveLength(4 * SCREENS.length)
  expect(report.links.filter((l) => l.fault)).toEqual([])
  await page.setViewportSize({ width: 1280, height: 800 })
  await open(page, file)
  for (const label of ['Hemp', 'Tar', 'Knots']) {
    await page.getByRole('link', { name: label, exact: true }).click()
    const below = () =>
      page.evaluate((text) => {
        const heading = [...document.querySelectorAll('h2')].find((h) => h.textContent === text)!
        return heading.getBoundingClientRect().top - document.querySelector('.top')!.getBoundingClientRect().bottom
      }, label)
    await expect.poll(async () => (await below()) >= 0 && (await below()) < 200).toBe(true)
  }
})

test('a drawer that stays open over its targets is reported on every screen', async () => {
  const { report } = await built('drawer')
  expect(report.links).toHaveLength(4 * SCREENS.length)
  expect(report.links.map((l) => [l.fault, 'why' in l ? l.why : ''])).toEqual(
    Array(4 * SCREENS.length).fill(['covered', 'arrives under its own menu, which stays open']),
  )
  expect(report.findings.map((f) => f.message).join()).toMatch(/The menu “.*” stays open after pressing 4 links/)
})

test('a header that changes its size moves nothing, and a link home is marked at the page’s start', async ({ page }) => {
  const { report, file } = await built('harbour')
  expect(report.links.filter((l) => l.fault)).toEqual([])
  await open(page, file)
  await frames(page)
  await expect(page.getByRole('link', { name: 'Home' })).toHaveAttribute('aria-current', 'true')
  await page.addStyleTag({ content: 'html { scroll-behavior: auto !important }' })
  const places = await page.evaluate(async () => {
    const link = document.querySelector<HTMLElement>('a[href="#pictures"]')!
    const out: number[][] = []
    // The second and third are followed while the header has hardly started to grow.
    for (let n = 0; n < 3; n++) {
      scrollTo(0, 0)
      await new Promise((done) => setTimeout(done, n ? 110 : 600))
      link.click()
      const seen = new Set<number>()
      for (const end = performance.now() + 900; performance.now() < end;) {
        await new Promise((done) => requestAnimationFrame(done))
        if (scrollY > 0) seen.add(Math.round(scrollY))
      }
      out.push([...seen])
    }
    return out
  })
  expect(new Set(places.map((p) => p.join())).size).toBe(1)
  expect(places[0]).toHaveLength(1)
})

test('what scripts build is told, and tried', async () => {
  const { report } = await built('scripted')
  const told = report.findings.find((f) => f.code === 'built-by-scripts')!.message
  expect(told).toContain('4 headings (“Frames”, “Wheels”, “Repairs”, …)')
  expect(told).toContain('a menu of 4 links')
  expect(report.links.map((l) => l.fault)).toEqual(Array<null>(4 * SCREENS.length).fill(null))
})

test('a late menu built by a script is marked; its IDs stay, and no second menu is made', async ({ page }) => {
  const { report, file } = await built('contents')
  expect(report.sections.map((s) => s.id)).toEqual(['sec-1', 'sec-2', 'sec-3', 'sec-4'])
  expect(report.links.filter((l) => l.fault)).toEqual([])
  await open(page, file)
  await expect(page.getByRole('link')).toHaveCount(4)
  await page.getByRole('link', { name: 'Moss and winter' }).click()
  await expect(page.getByRole('link', { name: 'Moss and winter' })).toHaveAttribute('aria-current', 'true')
  await expect.poll(() => standingOut(page, 'nav')).toEqual(['Moss and winter'])
})

test('script-built targets are reached and marked from the page’s menu, and aren’t reported missing', async ({ page }) => {
  const { report, file } = await built('part-scripted')
  expect(report.links.filter((l) => l.fault)).toEqual([])
  expect(report.findings.map((f) => f.code)).toEqual(['built-by-scripts'])
  await open(page, file)
  for (const name of ['Roast', 'Beans', 'Find us']) {
    await page.getByRole('link', { name }).click()
    await expect(page.getByRole('link', { name })).toHaveAttribute('aria-current', 'true')
  }
})
