export { filmFacts } from "#core/judge/film-question";
export { optionQuestion } from "#core/judge/questions";
