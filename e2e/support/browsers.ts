/** Which Chromium the tests use. */
const named = process.env.WAYBELL_BROWSER

/** Debian's headless shell: the same engine without windows, at half the cost. */
export const browserPath = named ?? '/usr/bin/chromium-headless-shell'
/** The full browser: settings, back/forward cache, background requests, and third-party storage limits. */
export const peoplesBrowserPath = named ?? '/usr/bin/chromium'

export const launchOf = (executablePath: string) => ({
  executablePath,
  args: [
    '--no-sandbox',
    // Chromium's real text widths; the shell would round them.
    '--font-render-hinting=none',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
