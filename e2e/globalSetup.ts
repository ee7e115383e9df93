import { prepareDatabase, startServer } from './server'

export default async function globalSetup(): Promise<void> {
  prepareDatabase()
  await startServer()
}
