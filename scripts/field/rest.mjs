/* global scrollX, scrollY */
/** Until nothing moves for several frames. */
export async function rest(page) {
  let last = ''
  for (let still = 0, n = 0; still < 5 && n < 150; n++) {
    const now = await page.evaluate(async () => {
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
      const inner = [...document.querySelectorAll('*')]
        .filter((e) => e.scrollTop > 0 || e.scrollLeft > 0)
        .map((e) => [e.scrollTop, e.scrollLeft])
      return JSON.stringify([scrollX, scrollY, inner, document.getAnimations().filter((a) => a.playState === 'running').length])
    })
    still = now === last ? still + 1 : 0
    last = now
  }
}
