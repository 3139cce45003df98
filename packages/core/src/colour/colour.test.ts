import { backingFor, COLOUR, contrast } from './index.ts'

it('compares like WCAG, after blending the text', () => {
  expect(contrast('rgb(0, 0, 0)', 'rgb(255, 255, 255)')).toBeCloseTo(21, 5)
  expect(contrast('rgb(118, 118, 118)', 'rgb(255, 255, 255)')).toBeCloseTo(4.54, 2)
  expect(contrast('rgba(0, 0, 0, 0.5)', 'rgb(255, 255, 255)')).toBeCloseTo(contrast('rgb(127.5, 127.5, 127.5)', 'rgb(255, 255, 255)')!, 5)
  expect(contrast('none', 'rgb(255, 255, 255)')).toBeNull()
  expect(contrast('rgb(0, 0, 0)', 'rgba(0, 0, 0, 0)')).toBeNull()
})

it('reads every computed colour, and nothing else', () => {
  const all = [
    'rgb(1, 2, 3)',
    'rgba(1, 2, 3, 0.5)',
    'oklch(0.7 0.1 200)',
    'oklab(0.5 0.1 -0.1 / 0.4)',
    'lab(50 20 -30)',
    'lch(50 20 130)',
    'color(srgb 0.1 0.2 0.3)',
    'color(display-p3 1 0.5 0 / 0.5)',
    'color(xyz-d65 0.1 0.2 0.3)',
    'hsl(120 50% 50%)',
  ]
  for (const text of all) {
    expect(text).toMatch(COLOUR)
    expect([text, contrast(text, 'rgb(255, 255, 255)')]).toEqual([text, expect.any(Number)])
  }
  for (const text of ['rgb(0,0,0); } body { display: none', 'url(x)', 'red', 'rgb(0,0,0) url(x)', 'color-mix(in srgb, red, blue)'])
    expect(text).not.toMatch(COLOUR)
})

describe('a backing', () => {
  it.each([
    ['rgb(20, 20, 20)', 'rgb(250, 250, 250)', 'rgb(250, 250, 250)'],
    ['rgb(255, 255, 255)', 'rgb(250, 250, 250)', 'rgb(24, 24, 24)'],
    // By what is read and not by how bright it is: near-black gives 5.1, white 3.5.
    ['rgb(0, 160, 0)', 'rgb(0, 120, 0)', 'rgb(24, 24, 24)'],
    ['oklch(0.3 0.1 250)', 'color(srgb 0.2 0.2 0.2)', 'rgb(255, 255, 255)'],
  ])('for %s on %s is %s', (text, background, backing) => expect(backingFor(text, background)).toBe(backing))
})
