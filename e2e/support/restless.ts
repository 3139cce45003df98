/** Pages that can't be measured, or only for a moment. */

export const restlessPage = (script: string) => `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Restless</title><style>
body { margin: 0; font: 16px/1.6 serif } header { position: sticky; top: 0; background: #fff; padding: 16px } section { min-height: 70vh; padding: 20px }
</style></head><body><header><nav><a href="#one">One</a> <a href="#two">Two</a></nav></header>
<section id="one"><h2>One</h2><p>Words.</p></section><section id="two"><h2>Two</h2><p>Words.</p></section><script>${script}</script></body></html>`

export const troubles: [name: string, script: string, said: RegExp][] = [
  ['runs without end', 'addEventListener("scroll", () => { for (;;); })', /doesn’t respond/],
  ['loads itself again and again', 'setTimeout(() => location.reload(), 500)', /keeps reloading itself/],
  [
    'takes the page’s means away',
    'Element.prototype.getBoundingClientRect = () => ({}); Array.prototype.map = () => []; requestAnimationFrame = () => 0; Object.defineProperty(document, "scrollingElement", { get: () => null })',
    /doesn’t respond/,
  ],
  [
    'grows without end',
    'setInterval(() => (document.body.style.paddingBottom = (parseFloat(document.body.style.paddingBottom) || 0) + 37 + "px"), 30)',
    /keeps changing its height or scroll position by itself/,
  ],
  ['scrolls by itself', 'setInterval(() => scrollBy(0, 3), 20)', /keeps changing its height or scroll position by itself/],
]
