export { KINDS } from './kinds';
