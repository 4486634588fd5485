export { Select as Options } from './Select';
