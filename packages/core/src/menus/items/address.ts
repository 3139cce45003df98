/** Checks typed addresses. */
import { distance } from 'fastest-levenshtein'

export interface AddressFault {
  /** What is wrong, as the rest of a sentence. */
  why: string
  /** The likely intention, if any. */
  meant: string | null
}

/** Schemes that run or show code, or reach the visitor's own files. */
const NEVER = new Set(['javascript', 'vbscript', 'data', 'blob', 'file', 'filesystem', 'about', 'view-source'])
const COMMON = ['https', 'http', 'mailto', 'tel', 'sms']
/** File extensions, to tell files from hosts. */
const FILE = /\.(x?html?|php|aspx?|jsp|pdf|zip|jpe?g|png|gif|svg|webp|avif|txt|md|ics|vcf|mp[34]|webm|docx?|xlsx?|pptx?|odt|csv|xml|json)$/i

const fault = (why: string, meant: string | null = null): AddressFault => ({ why, meant: meant && !addressFault(meant) ? meant : null })

/** @param address without surrounding space @returns null for a valid address @see URL Standard, "URL strings" */
export function addressFault(address: string): AddressFault | null {
  if (address.trim() === '') return fault('it is empty')
  if (/[\u0000-\u0020\u007f]/.test(address))
    return fault(
      'an address has no spaces',
      address
        .trim()
        .replace(/[\u0000-\u001f\u007f]/g, '')
        .replace(/ /g, '%20'),
    )
  if (address.startsWith('#')) return fault('a hash alone is a section of this page; choose the section')
  const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(address)?.[1]!.toLowerCase()
  if (scheme === undefined) return relativeFault(address)
  const rest = address.slice(scheme.length + 1)
  if (NEVER.has(scheme)) return fault(`“${scheme}:” isn’t allowed in a link`)
  // A host with its port.
  if (scheme.includes('.') || (scheme === 'localhost' && /^\d/.test(rest)))
    return fault(`“${scheme}:” is no scheme that a browser knows`, `https://${address}`)
  if (!COMMON.includes(scheme)) {
    const near = COMMON.find((known) => distance(known, scheme) === 1)
    return near
      ? fault(`“${scheme}:” is no scheme that a browser knows`, `${near}:${rest}`)
      : rest === ''
        ? fault('the scheme is followed by nothing')
        : null
  }
  if (scheme === 'mailto') return /^([^@]+@[^@.]|\?)/.test(rest) ? null : fault('a mail address has a name, an @ and a host')
  if (scheme === 'tel' || scheme === 'sms') return /\d/.test(rest) ? null : fault('a telephone number has digits')
  if (!/^\/\/[^/]/.test(rest)) {
    const host = rest.replace(/^\/+/, '')
    return fault('the scheme needs two slashes and a host', host && `${scheme}://${host}`)
  }
  return hostFault(rest)
}

/** @param rest from the two slashes on */
function hostFault(rest: string): AddressFault | null {
  const host = /^\/\/(?:[^/?#@]*@)?([^/?#]*)/.exec(rest)![1]!
  const name = host.replace(/:\d*$/, '')
  if (/^\[[\da-f:.]+\]$/i.test(name)) return null
  const parts = name.replace(/\.$/, '').split('.')
  if (name === '' || parts.some((part) => part === '') || /[<>"\\^`{|}[\]:@%]/.test(name)) return fault(`“${host}” cannot be a host`)
  return null
}

function relativeFault(address: string): AddressFault | null {
  if (/^[\\/]{2}/.test(address)) return hostFault(address.replace(/\\/g, '/'))
  if (/[<>"\\^`{|}]/.test(address))
    return fault('it contains a character that addresses can’t have', encodeURI(address.replace(/\\/g, '/')))
  const first = address.split(/[/?#]/)[0]!
  if (/^[^@]+@[^@]+\.[^@]+$/.test(first)) return fault('a mail address begins with “mailto:”', `mailto:${address}`)
  // Without a scheme, a host is read as a folder.
  if (/^[^.].*\.[a-z]{2,}$/i.test(first) && !FILE.test(first))
    return fault('without “https://” it means a file next to the page', `https://${address}`)
  return null
}
