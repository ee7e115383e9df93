/** Asks a server of a test as a browser asks, with what no browser lets one say too. */
import { request, type IncomingHttpHeaders, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'

export interface Asked {
  readonly method?: string
  readonly path: string
  readonly headers?: Record<string, string>
  readonly body?: string | Buffer
}

export interface Heard {
  readonly status: number
  readonly text: string
  readonly headers: IncomingHttpHeaders
}

export const portOf = (server: Server): number => (server.address() as AddressInfo).port

/** What is sent is JSON of the length that it has, unless the headers say otherwise. */
export const ask = (
  server: Server,
  { method = 'GET', path, headers = {}, body }: Asked,
): Promise<Heard> =>
  new Promise((resolve, reject) => {
    const asked = request(
      {
        ...{ port: portOf(server), host: '127.0.0.1', method, path },
        headers: {
          host: 'localhost:3600',
          ...(body === undefined
            ? {}
            : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }),
          ...headers,
        },
      },
      (response) => {
        let text = ''
        response.on('data', (piece: Buffer) => (text += piece.toString('utf8')))
        response.on('end', () =>
          resolve({ status: response.statusCode ?? 0, text, headers: response.headers }),
        )
      },
    )
    asked.on('error', reject)
    asked.end(body)
  })
