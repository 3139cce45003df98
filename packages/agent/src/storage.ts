/**
 * What a page keeps between visits. A browser that lets no frame of another site keep anything throws where a page asks; for a visitor it does
 * not, so the page gets a storage of its own that lasts as long as it is shown.
 */
export function keepStorage(): void {
  for (const name of ['localStorage', 'sessionStorage'] as const) {
    try {
      void window[name]
    } catch {
      const kept = inMemory()
      Object.defineProperty(window, name, { configurable: true, enumerable: true, get: () => kept })
    }
  }
}

/** @see HTML, "The Storage interface": items are properties too */
function inMemory(): Storage {
  const items = new Map<string, string>()
  const methods = Object.assign(Object.create(Storage.prototype) as object, {
    getItem: (key: string) => items.get(String(key)) ?? null,
    setItem: (key: string, value: string) => void items.set(String(key), String(value)),
    removeItem: (key: string) => void items.delete(String(key)),
    clear: () => items.clear(),
    key: (index: number) => [...items.keys()][index] ?? null,
  }) as Storage
  const isItem = (key: string | symbol): key is string => typeof key === 'string' && items.has(key) && !(key in methods)
  return new Proxy(methods, {
    get: (target, key) => (key === 'length' ? items.size : isItem(key) ? items.get(key) : (Reflect.get(target, key, target) as unknown)),
    set: (target, key, value) => {
      if (typeof key === 'string' && !(key in target)) items.set(key, String(value))
      return true
    },
    deleteProperty: (_, key) => (typeof key === 'string' && items.delete(key), true),
    has: (target, key) => isItem(key) || key in target,
    ownKeys: () => [...items.keys()],
    getOwnPropertyDescriptor: (_, key) =>
      isItem(key) ? { value: items.get(key), writable: true, enumerable: true, configurable: true } : undefined,
  })
}
