import { worker } from 'workerpool';
import { answerPlan } from './answer-plan';

/** Entry of the processes that plan; bundled by itself (`npm run build:worker`), one call one request. */
worker({ answerPlan });
