export { compareOptions, type Option, type Side } from './compare-options';
