import { prepareDatabase, startWorker } from './server'

/** What is returned is done when all tests are through. */
export default function begin(): () => void {
  prepareDatabase()
  return startWorker()
}
