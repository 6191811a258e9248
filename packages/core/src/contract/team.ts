import Joi from 'joi';
import type { Role } from '../team';
import { id } from './common';

export const signIn = Joi.object({
  email: Joi.string().trim().lowercase().max(254).required(),
  password: Joi.string().max(200).required(),
});

export const chooseChapter = Joi.object({ chapterId: id.allow(null).required() });

export interface SessionView {
  teammate: { id: number; name: string; email: string; role: Role; mobile: string };
  organization: { id: number; name: string; country: string; locale: string; currency: string; timeZone: string; textFrom: string };
  /** The chapter being worked in; null for all that the teammate may see. */
  chapter: { id: number; name: string } | null;
  chapters: { id: number; name: string }[];
  csrf: string;
  standins: { mailroom: string | null; handsets: string | null };
}
