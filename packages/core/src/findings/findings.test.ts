import { defaultRule } from '../naming/index.ts'
import { readPage } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { openFindings, pageFindings } from './index.ts'

const read = (body: string) => readPage(new TextEncoder().encode(body))
const codes = (body: string, missing: string[] = []) => pageFindings(read(body), new Set(missing)).map((f) => `${f.severity} ${f.code} ${f.line}:${f.column}`)

it('names each fault with its place', () =>
  expect(
    codes(
      `<nav><a href="#gone">a</a>\n<a href="#ABOUT">b</a><a href="#dup">c</a></nav>
<section id="about"><h2>A</h2></section>
<section id="my work"><h2>B</h2></section><section id="2nd"><h2>C</h2></section>
<section id=dup><p>No heading here, only words.</p></section><p id=dup>x</p><p id=x1><p id=x1>
<img src="lost.png">`,
      ['lost.png'],
    ),
  ).toEqual([
    'error link-broken 1:6',
    'error link-case 2:1',
    'error id-space 4:1',
    'warning id-selector 4:43',
    'warning heading-missing 5:1',
    'error id-duplicate 5:62',
    'warning id-duplicate 5:86',
    'warning asset-missing 6:1',
  ]))

it('says nothing of a sound page', () => expect(codes('<nav><a href="#a">A</a><a href="#b">B</a></nav><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section>')).toEqual([]))

it('closes a finding when the designer’s work settles it', () => {
  const reading = read('<nav><a href="#">One</a><a href="#tow">Two</a></nav><p><a href="#one">x</a> <a href="#three">y</a></p><section><h2>One</h2></section><section><h2>Two</h2></section>')
  const all = pageFindings(reading, new Set())
  const page = { key: '', file: '', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  expect(all.map((f) => f.code)).toEqual(['link-broken', 'link-broken', 'link-broken'])
  expect(openFindings(page, reading, all).map((f) => f.message)).toEqual([expect.stringContaining('#three')])
})
