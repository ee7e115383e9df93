import { measureStuck } from './benchStuck'
measureStuck(20)
