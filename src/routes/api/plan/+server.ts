import { planBody, responseOf } from '$lib/server/ask';
import type { RequestHandler } from './$types';

/** Plans what the body holds and forgets it. Answers 400 with issues in their places, 413 where the body is too big. */
export const POST: RequestHandler = async (asked) => responseOf(await planBody(asked));
