export { kindName, KINDS } from './kinds';
