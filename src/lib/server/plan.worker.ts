import { answerPlan } from './answer-plan';

/** Entry of the threads that plan; bundled by itself (`npm run build:worker`), one call one request. */
export default answerPlan;
