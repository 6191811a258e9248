import type { TextAnswers } from '@goodword/core/contract';

/** What the program answers to STOP, HELP and START, and to whoever joins by text. */
export type AutomaticAnswers = TextAnswers;

/** The organization's own words, or good ones to begin with. None of them asks for anything. */
export function automaticAnswersOf(organization: {
  name: string;
  text_answers: TextAnswers | null;
}): AutomaticAnswers {
  return organization.text_answers ?? startingAutomaticAnswers(organization.name);
}

export function startingAutomaticAnswers(name: string): AutomaticAnswers {
  return {
    // 47 CFR 64.1200(a)(12): it may not try to persuade anybody to come back.
    stop: `${name}: you will get no more texts from us.`,
    help: `${name}: texts to people who asked for them. Message and data rates may apply. Text STOP to leave. Reply here and a person will read it.`,
    start: `${name}: welcome. You get the texts you asked for. Message and data rates may apply. Text STOP to leave, HELP for help.`,
  };
}
