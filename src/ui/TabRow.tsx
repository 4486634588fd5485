export { Tabs as TabRow } from './Tabs';
