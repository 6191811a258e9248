export { better, type Found, type Tried } from './better';
export {
  COMPARE_MEASURES,
  COMPARISON_LIMITS,
  measuresOn,
  USUAL_COMPARISON,
  type CompareMeasure,
  type Comparison,
} from './comparison';
export { drawnFor, isKept, KEPT_LIMITS, REST } from './draw';
