import { readPage } from './read.ts'

const read = (settings: unknown, body = '') =>
  readPage(
    new TextEncoder().encode(
      `<head><script type="application/json" data-wb="settings">${typeof settings === 'string' ? settings : JSON.stringify(settings)}</script></head><body>${body}<section id="a"><h2>A</h2></section>`,
    ),
  ).written
const sound = {
  sections: ['a'],
  toTop: [],
  breathing: 24,
  bellOffset: 30,
  smooth: true,
  keep: false,
  former: [['old', 'a']],
  points: [['here', 1, -12]],
  shrink: [],
  bar: 0,
}

describe('an earlier handover', () => {
  it('is read back', () =>
    expect(read(sound).settings).toEqual({
      sections: ['a'],
      toTop: [],
      breathing: 24,
      bellOffset: 30,
      smooth: true,
      keep: false,
      former: [{ was: 'old', now: 'a' }],
      points: [{ id: 'here', anchor: 1, below: -12 }],
    }))
  it('is read with its present names', () => {
    const now = { former: [{ was: 'old', now: 'a' }, { was: 3 }], points: [{ id: 'here', below: -12 }, { id: 'x' }, null] }
    expect(read({ ...sound, ...now }).settings).toMatchObject({ former: [{ was: 'old', now: 'a' }], points: [{ id: 'here', below: -12 }] })
  })
  it('is read without former IDs and points', () => {
    expect(read({ ...sound, former: undefined, points: undefined }).settings).toMatchObject({ former: [], points: [] })
  })
  it.each([
    ['is no JSON', '{"sections": ['],
    ['has no sections', { ...sound, sections: undefined }],
    ['has sections that are no text', { ...sound, sections: [1] }],
    ['has a length that is none', { ...sound, breathing: '24' }],
    ['has a length beyond all pages', { ...sound, bellOffset: 1e9 }],
  ])('is proposed again where it %s', (_, settings) => expect(read(settings).settings).toBeNull())
  it('drops former IDs and points damaged by hand', () =>
    expect(
      read({ ...sound, former: { old: 3, older: 'a' }, points: { x: 1, y: ['1', 2], z: [1, 2, 3], here: [2, 0] } }).settings,
    ).toMatchObject({ former: [{ was: 'older', now: 'a' }], points: [{ id: 'here', anchor: 2, below: 0 }] }))
  it('names the first element with each anchor’s number', () => {
    const { anchors } = read(sound, '<p data-wb-anchor="1">x</p><p data-wb-anchor="1">y</p><p data-wb-anchor="2">z</p>')
    expect(Object.keys(anchors)).toEqual(['1', '2'])
    expect(anchors['1']).toBeLessThan(anchors['2']!)
  })
})
