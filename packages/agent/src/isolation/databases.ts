/** Databases and caches in memory, for pages whose browser refuses both, see storage.ts. Loaded only when a page asks for one. */
import 'fake-indexeddb/auto'

type Kept = { request: Request; response: Response }

/** @see Service Workers, "Cache". `add` is blocked like every fetch of the page. */
class MemoryCache {
  private kept: Kept[] = []

  private find(asked: RequestInfo | URL | undefined, options: CacheQueryOptions = {}): Kept[] {
    if (asked === undefined) return this.kept
    const { url, method } = new Request(asked)
    const plain = (address: string) => address.replace(options.ignoreSearch ? /[?#].*$/s : /#.*$/s, '')
    if (method !== 'GET' && !options.ignoreMethod) return []
    return this.kept.filter(({ request }) => plain(request.url) === plain(url))
  }
  async match(asked: RequestInfo | URL, options?: CacheQueryOptions): Promise<Response | undefined> {
    return this.find(asked, options)[0]?.response.clone()
  }
  async matchAll(asked?: RequestInfo | URL, options?: CacheQueryOptions): Promise<Response[]> {
    return this.find(asked, options).map(({ response }) => response.clone())
  }
  async put(asked: RequestInfo | URL, response: Response): Promise<void> {
    const request = new Request(asked)
    if (request.method !== 'GET') throw new TypeError(`Request method '${request.method}' is unsupported`)
    if (response.status === 206 || response.bodyUsed) throw new TypeError('This response cannot be kept')
    const before = this.find(request)
    this.kept = [...this.kept.filter((kept) => !before.includes(kept)), { request, response: response.clone() }]
  }
  async delete(asked: RequestInfo | URL, options?: CacheQueryOptions): Promise<boolean> {
    const found = this.find(asked, options)
    this.kept = this.kept.filter((kept) => !found.includes(kept))
    return found.length > 0
  }
  async keys(asked?: RequestInfo | URL, options?: CacheQueryOptions): Promise<Request[]> {
    return this.find(asked, options).map(({ request }) => request)
  }
  async add(asked: RequestInfo | URL): Promise<void> {
    await this.addAll([asked])
  }
  async addAll(asked: (RequestInfo | URL)[]): Promise<void> {
    const got = await Promise.all(asked.map(async (one) => ({ one, response: await fetch(one) })))
    for (const { one, response } of got) await this.put(one, response)
  }
}

/** @see Service Workers, "CacheStorage" */
class MemoryCaches {
  private readonly named = new Map<string, MemoryCache>()

  async open(name: string): Promise<MemoryCache> {
    const found = this.named.get(name) ?? new MemoryCache()
    this.named.set(name, found)
    return found
  }
  async has(name: string): Promise<boolean> {
    return this.named.has(name)
  }
  async delete(name: string): Promise<boolean> {
    return this.named.delete(name)
  }
  async keys(): Promise<string[]> {
    return [...this.named.keys()]
  }
  async match(asked: RequestInfo | URL, options: MultiCacheQueryOptions = {}): Promise<Response | undefined> {
    for (const [name, cache] of this.named) {
      if (options.cacheName !== undefined && options.cacheName !== name) continue
      const found = await cache.match(asked, options)
      if (found) return found
    }
    return undefined
  }
}

Object.defineProperty(window, 'caches', { configurable: true, enumerable: true, value: new MemoryCaches() })
