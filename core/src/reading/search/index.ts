export { readSearch, searchFrom, searchKey, searchTo } from './searchKey.ts';
