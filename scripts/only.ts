import { measureUniversal } from './benchUniversal'
measureUniversal(Number(process.argv[2]))
