/** Runs once, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return
  const { keepRequestsApart } = await import('./server/asking')
  keepRequestsApart()
  const { startWork } = await import('./server/work')
  // Pages are served meanwhile; what cannot be mended by waiting is told, and files are then read elsewhere or not.
  void startWork().catch((error: unknown) => console.error('no work is taken here', error))
}
