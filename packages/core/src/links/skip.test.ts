import { readPage } from '../page/index.ts'
import { ownSkipLink, skipWords } from './index.ts'

const read = (body: string, lang = 'en') => readPage(new TextEncoder().encode(`<html lang="${lang}"><title>A page</title>${body}`))

it.each([
  ['Skip to main content', true],
  ['Jump to content', true],
  ['Zum Inhalt springen', true],
  ['Aller au contenu principal', true],
  ['To the content', true],
  ['Skipping stones', false],
  ['Contents', false],
  ['Our content', false],
])('takes “%s” at the start for a skip link: %s', (label, is) => {
  const body = `<nav><a href="#m">${label}</a><a href="/">Home</a></nav><main id="m"><h2>A</h2></main>`
  expect(ownSkipLink(read(body))?.label ?? null).toBe(is ? label : null)
})

it('takes none that leads nowhere, is further down, or leads to another page', () => {
  const end = '<main id="m"><h2>A</h2></main>'
  expect(ownSkipLink(read(`<a href="#gone">Skip to content</a>${end}`))).toBeNull()
  expect(ownSkipLink(read(`<a href="/other#m">Skip to content</a>${end}`))).toBeNull()
  const many = '<a href="/1">1</a><a href="/2">2</a><a href="/3">3</a>'
  expect(ownSkipLink(read(`${many}<a href="#m">Skip to content</a>${end}`))).toBeNull()
})

it('is in the page’s language if known', () => {
  expect(['de-AT', 'FR', 'en', '', 'tlh'].map((lang) => skipWords(read('', lang)))).toEqual([
    'Zum Inhalt springen',
    'Aller au contenu',
    'Skip to content',
    'Skip to content',
    'Skip to content',
  ])
})
