/** Which Chromium the tests drive. */
const named = process.env.WAYBELL_BROWSER

/** Debian's headless Chromium: the engine that people have, without the windows that nobody sees, at half the cost. */
export const browserPath = named ?? '/usr/bin/chromium-headless-shell'
/**
 * With all that people have in it besides: settings of their own, the cache of pages that one comes back to, what it looks up and reports by
 * itself, and what it lets no frame of another site keep.
 */
export const peoplesBrowserPath = named ?? '/usr/bin/chromium'

export const launchOf = (executablePath: string) => ({
  executablePath,
  args: [
    '--no-sandbox',
    // Chromium's own widths of text, which the shell rounds without it.
    '--font-render-hinting=none',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
