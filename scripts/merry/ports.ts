/** Ports of this machine. */
import { createServer } from 'node:net'

export function freePort(): Promise<number> {
  return new Promise((found, reject) => {
    const probe = createServer()
    probe.on('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => found(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

export function isPortFree(port: number): Promise<boolean> {
  return new Promise((found) => {
    const probe = createServer()
    probe.on('error', () => found(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => found(true)))
  })
}
