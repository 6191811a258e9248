export { wilson, type Rate } from './rates';
