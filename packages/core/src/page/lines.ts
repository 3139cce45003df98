/** Line and column of a position in text, both from 1. CR, LF and CRLF each end one line. */
export interface Place {
  line: number
  column: number
}

export class Lines {
  private readonly starts: number[] = [0]

  constructor(text: string) {
    for (let i = 0; i < text.length; i++) {
      const c = text.charCodeAt(i)
      if (c === 10 || (c === 13 && text.charCodeAt(i + 1) !== 10)) this.starts.push(i + 1)
    }
  }

  at(position: number): Place {
    let low = 0
    let high = this.starts.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (this.starts[middle]! <= position) low = middle
      else high = middle - 1
    }
    return { line: low + 1, column: position - this.starts[low]! + 1 }
  }
}
