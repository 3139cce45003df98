/** Skip links. */
import type { PageLink, PageReading } from '../page/index.ts'

/** Max links before it. */
const BEFORE = 3
const SKIPS =
  /\b(skip|jump) (to|past|over)\b|\b(to|go to) (the )?(main )?content\b|\bzum (haupt)?inhalt\b|\binhalt springen\b|\b(aller|passer) (au|directement au) contenu\b|\b(saltar|ir) al contenido\b|\b(vai|salta) al contenuto\b|\bnaar (de )?(hoofd)?inhoud\b|\b(ir|saltar) para o conte[uú]do\b|\bprzejd[zź] do tre[sś]ci\b/i

/** The page's own skip link; null for none. */
export const ownSkipLink = ({ links }: Pick<PageReading, 'links'>): PageLink | null =>
  links.slice(0, BEFORE).find((l) => l.fragment !== null && l.status === 'ok' && SKIPS.test(l.label)) ?? null

const words: Record<string, string> = {
  de: 'Zum Inhalt springen',
  en: 'Skip to content',
  es: 'Saltar al contenido',
  fr: 'Aller au contenu',
  it: 'Vai al contenuto',
  nl: 'Naar de inhoud',
  pl: 'Przejdź do treści',
  pt: 'Ir para o conteúdo',
}

/** Text of a skip link in the page's language, or English. */
export const skipWords = ({ lang }: Pick<PageReading, 'lang'>): string => words[lang.trim().slice(0, 2).toLowerCase()] ?? words.en!
