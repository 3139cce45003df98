declare module 'any-ascii/tables' {
  export default function anyAscii(text: string): string
}
