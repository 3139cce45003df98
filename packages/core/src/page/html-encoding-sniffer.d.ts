declare module 'html-encoding-sniffer' {
  /** Name of the encoding by its label in the Encoding Standard; `defaultEncoding` where nothing says one. */
  export default function sniff(bytes: Uint8Array, options: { defaultEncoding: string }): string
}
