import { gzipSync } from 'node:zlib'
import { runtimeText } from './text.ts'

it('stays under 4 kB, packed', () => expect(gzipSync(runtimeText).length).toBeLessThanOrEqual(4096))
it('is plain ASCII that can stand in any page', () => {
  expect(runtimeText).toMatch(/^[\x20-\x7e\n]+$/)
  expect(runtimeText).not.toMatch(/<\/script|<!--/i)
})
