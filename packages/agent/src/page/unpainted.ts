const unpainted = new CSSStyleSheet()
unpainted.replaceSync('html { opacity: 0 !important; }')

/** Measuring frames aren't painted: only layout matters, and painting takes most of the time. */
export function leaveUnpainted(): void {
  if (!document.adoptedStyleSheets.includes(unpainted)) document.adoptedStyleSheets.push(unpainted)
}
