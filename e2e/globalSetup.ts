import { noteDemo } from './database'
import { prepareDatabase, startServer } from './server'

export default async function globalSetup(): Promise<void> {
  prepareDatabase()
  await noteDemo()
  await startServer()
}
