export { AFFECTED, type ChangedRoom } from './affected';
