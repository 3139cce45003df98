/** A value that changes often, outside React's state: only its readers render. */
import { useSyncExternalStore } from 'react'

export class Signal<T> {
  private readonly listeners = new Set<() => void>()

  constructor(private value: T) {}

  readonly get = (): T => this.value

  set(value: T): void {
    if (Object.is(value, this.value)) return
    this.value = value
    for (const listener of [...this.listeners]) listener()
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}

/** Selects from a signal; renders when the selection changes. */
export const useSignal = <T, R>(signal: Signal<T>, pick: (value: T) => R): R =>
  useSyncExternalStore(signal.subscribe, () => pick(signal.get()))
