import Joi from 'joi';
import { COMPARE_MEASURES, COMPARISON_LIMITS } from '../wordings';
import { basedOn, id } from './common';

const [[leastShare, mostShare], [leastHours, mostHours]] = [COMPARISON_LIMITS.share, COMPARISON_LIMITS.hours];

/** Body: how the wordings of a message are compared. */
export const saveComparison = Joi.object({
  share: Joi.number().integer().min(leastShare).max(mostShare).required(),
  measure: Joi.string()
    .valid(...COMPARE_MEASURES)
    .required(),
  hours: Joi.number().integer().min(leastHours).max(mostHours).required(),
  basedOn: basedOn.required(),
});
/** Body: the wording that the rest gets, chosen by a person. */
export const chooseWording = Joi.object({ wordingId: id.required() });
