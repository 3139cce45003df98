import { readPage } from './read.ts'
import { namedIds, renamedReference } from './references.ts'

it('finds attributes that refer to elements, and replaces their IDs', () => {
  const page = readPage(
    new TextEncoder().encode(
      '<section id="work" aria-labelledby="work-title other"><h2 id="work-title">W</h2></section><label for="work">x</label><button data-target="#work" aria-controls="gone">b</button><p data-x="work" title="work">',
    ),
  )
  expect(page.references.map((r) => [r.name, r.value])).toEqual([
    ['aria-labelledby', 'work-title other'],
    ['for', 'work'],
    ['data-target', '#work'],
  ])
  const renames = new Map([
    ['work', 'our-work'],
    ['work-title', 't'],
  ])
  expect(page.references.map((r) => renamedReference(r, renames))).toEqual(['t other', 'our-work', '#our-work'])
  expect(renamedReference(page.references[0]!, new Map([['x', 'y']]))).toBeNull()
})

it('finds IDs in selectors and script strings, but no colours', () => {
  const css = '@media (min-width: 1px) { #work > p, .x#team:hover { color: #fade00; background: #face } } /* #old */ #a\\:b { x: y }'
  const js = 'document.getElementById("work"); $(\'#news\').show(); const s = "some words with team"'
  expect(namedIds(['work', 'team', 'news', 'face', 'old', 'a:b'], [css], [js])).toEqual({
    styles: ['work', 'team', 'a:b'],
    scripts: ['work', 'news'],
  })
})

it('survives absurdly nested styles', () =>
  expect(namedIds(['a'], [`#a{} ${'('.repeat(200000)}`, '#a { &:hover { color: #fff } } @media { #b {} }'], []).styles).toEqual(['a']))
