/**
 * Serves the built application, or while it is edited: every request comes through the one door (src/front/door.ts).
 * Of several processes each answers on the same address; what they share is the database alone.
 *
 *     node --import tsx scripts/serve.ts start|dev PORT [PROCESSES]
 */
import cluster from 'node:cluster'
import { createServer } from 'node:http'
import next from 'next'
import { door } from '../src/front/door'
import { keepRequestsApart } from '../src/server/asking'

const [mode, port, processes] = [
  process.argv[2],
  Number(process.argv[3]),
  Number(process.argv[4] ?? 1),
]
const isDevelopment = mode === 'dev'
const HOST = '127.0.0.1'
/** Longer than what asks keeps a connection, so that none is closed in the moment in which it is used again. */
const KEEP_ALIVE_MS = 65_000
/** Connections that may wait to be taken; beyond them the system refuses without a word. */
const WAITING = 4096
/** A process that ends sooner than this after its start is not started again at once. */
const STEADY_MS = 2000

if (cluster.isPrimary && processes > 1) guard()
else await serve()

async function serve(): Promise<void> {
  keepRequestsApart()
  const application = next({ dev: isDevelopment, hostname: HOST, port })
  await application.prepare()
  const handle = application.getRequestHandler()
  const answer = door((request, response) => handle(request, response), isDevelopment)
  const server = createServer({ keepAliveTimeout: KEEP_ALIVE_MS }, (request, response) => {
    answer(request, response).catch((error: unknown) => {
      console.error('a request failed', error)
      if (!response.headersSent) response.statusCode = 500
      response.end()
    })
  })
  // Nobody is behind a request that stays half sent; a file may take long, but then it moves.
  server.requestTimeout = 30 * 60_000
  server.headersTimeout = 20_000
  if (isDevelopment) {
    const upgrade = application.getUpgradeHandler()
    server.on('upgrade', (request, socket, head) => void upgrade(request, socket, head))
  }
  server.listen({ port, host: HOST, backlog: WAITING })
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => {
      server.close(() => process.exit(0))
      server.closeIdleConnections()
    })
}

/** Starts the others, and each again that ends. */
function guard(): void {
  let isOver = false
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => {
      isOver = true
      for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill(signal)
    })
  const start = () => {
    const began = performance.now()
    cluster.fork().once('exit', () => {
      if (isOver) return
      console.error('merry: one of the processes that answer has ended; it is started again')
      setTimeout(start, performance.now() - began < STEADY_MS ? STEADY_MS : 0)
    })
  }
  for (let n = 0; n < processes; n++) start()
}
