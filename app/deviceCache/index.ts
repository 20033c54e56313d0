export { remember, remembered } from './choices.ts';
export { storedAnswers, forgetAnswer, forgetAnswers, storeAnswer, storedAnswer } from './answers.ts';
export { rowsOf, type Rows } from './rows.ts';
export { installOnDevice } from './serviceWorker.ts';
export { isOutdated, takeNewVersion } from './version.ts';
export { unanswered } from './unanswered.ts';
