import { stopServer } from './server'

export default stopServer
