import { prepareDatabase } from './server'

export default prepareDatabase
