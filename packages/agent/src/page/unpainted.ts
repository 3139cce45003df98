const unpainted = new CSSStyleSheet()
unpainted.replaceSync('html { opacity: 0 !important; }')

/** Nobody looks at the frame that is measured: its layout is wanted, and painting it takes most of the time. */
export function leaveUnpainted(): void {
  if (!document.adoptedStyleSheets.includes(unpainted)) document.adoptedStyleSheets.push(unpainted)
}
