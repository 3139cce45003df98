import databases from '../../dist/databases.js?raw'

/**
 * Storage of the page. Browsers that block storage in third-party frames throw; for a visitor they don't, so the page gets storage in
 * memory.
 */
export function keepStorage(): void {
  let isRefused = false
  for (const name of ['localStorage', 'sessionStorage'] as const) {
    try {
      void window[name]
    } catch {
      isRefused = true
      const kept = inMemory()
      Object.defineProperty(window, name, { configurable: true, enumerable: true, get: () => kept })
    }
  }
  // A browser that blocks one blocks all.
  if (isRefused)
    for (const name of LENT) Object.defineProperty(window, name, { configurable: true, enumerable: true, get: () => lendDatabases(name) })
}

const LENT = ['indexedDB', 'caches'] as const

/** Replaces both at the first use of either. */
function lendDatabases(name: string): unknown {
  for (const lent of LENT) Reflect.deleteProperty(window, lent)
  const script = document.createElement('script')
  script.textContent = databases
  document.documentElement.append(script)
  script.remove()
  return Reflect.get(window, name)
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
