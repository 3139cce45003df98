/**
 * Folders served on loopback as visitors get them: with their scripts, (`/off/`) with none, and (`/own/`) with the page's own alone. Nothing from outside is let in. Each page is
 * watched from its first frame on by a script that takes itself out again: `seen` holds when it moved.
 */
import { createServer } from 'node:http'
import { readFileSync, statSync } from 'node:fs'
import { extname, join, normalize } from 'node:path'

const types = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.js': 'text/javascript',
  '.mjs': 'text/javascript',
  '.json': 'application/json',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
  '.gif': 'image/gif',
  '.webp': 'image/webp',
  '.woff': 'font/woff',
  '.woff2': 'font/woff2',
}
const outside = "default-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:;"
const scripted = `${outside} script-src 'self' 'unsafe-inline' 'unsafe-eval' data: blob:`
const policies = {
  on: scripted,
  own: scripted,
  off: `${outside} script-src 'nonce-seen'`,
}

/* global location, getComputedStyle */
/** In the page: `moves` are [when, where it was scrolled to, how far the target's top went in the viewport], in ms and px. */
function watch() {
  document.currentScript.remove()
  const seen = { moves: [], id: null, since: 0, pressed: null, box }
  /** What scrolls most: the document, or an element where that does not. */
  function box() {
    const range = (e) => e.scrollHeight - e.clientHeight
    const whole = document.scrollingElement ?? document.documentElement
    const can = (e) => /auto|scroll/.test(getComputedStyle(e).overflowY)
    const inner = [...document.querySelectorAll('body, body *')].filter((e) => range(e) > 4 * range(whole) && range(e) > 200 && can(e))
    return inner.sort((a, b) => range(b) - range(a))[0] ?? whole
  }
  window.seen = seen
  addEventListener('click', (event) => (seen.pressed = event.target.closest?.('a')?.getAttribute('href') ?? null), true)
  let [y, top, of] = [null, 0, null]
  const decode = (text) => {
    try {
      return decodeURIComponent(text)
    } catch {
      return text
    }
  }
  const look = () => {
    const id = seen.id ?? decode(location.hash.slice(1))
    const el = document.getElementById(id) ?? document.getElementsByName(id)[0] ?? null
    let now = document.scrollingElement?.scrollTop ?? 0
    for (let e = el?.parentElement; e; e = e.parentElement) if (e !== document.scrollingElement) now += e.scrollTop
    const place = el ? el.getBoundingClientRect().top : -now
    if (y !== null && of === id && Math.abs(now - y) > 0.5) seen.moves.push([performance.now(), now, place - top])
    ;[y, top, of] = [now, place, id]
    requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
}

/** @param {Record<string, string>} folders by name @returns the address: `${address}/on/NAME/index.html` */
export function serveFolders(folders) {
  const server = createServer((request, response) => {
    const [, mode, name, ...rest] = decodeURIComponent(new URL(request.url, 'http://x').pathname).split('/')
    const path = normalize(rest.join('/') || 'index.html')
    const file = folders[name] && policies[mode] && !path.startsWith('..') ? join(folders[name], path) : null
    try {
      const bytes = statSync(file).isFile() && readFileSync(file)
      const type = types[extname(file).toLowerCase()] ?? 'application/octet-stream'
      const isPage = type === 'text/html'
      response.writeHead(200, { 'content-type': type, ...(isPage ? { 'content-security-policy': policies[mode] } : {}) })
      response.end(isPage ? watched(mode === 'own' ? withoutOurs(bytes) : bytes) : bytes)
    } catch {
      response.writeHead(404).end()
    }
  })
  return new Promise((done) => server.listen(0, '127.0.0.1', () => done({ address: `http://127.0.0.1:${server.address().port}`, server })))
}

const withoutOurs = (bytes) =>
  Buffer.from(bytes.toString('latin1').replace(/<script\b[^>]*\bdata-wb="script"[^>]*>[^]*?<\/script>/gi, ''), 'latin1')

/** Behind the tags that open the page, byte by byte as it is otherwise. */
function watched(bytes) {
  const text = bytes.toString('latin1')
  const at = /^(?:\uFEFF|\xEF\xBB\xBF)?(?:\s|<!--[^]*?-->|<!doctype[^>]*>|<html(?:\s[^>]*)?>|<head(?:\s[^>]*)?>)*/i.exec(text)[0].length
  return Buffer.from(`${text.slice(0, at)}<script nonce="seen">(${watch})()</script>${text.slice(at)}`, 'latin1')
}
