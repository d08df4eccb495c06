/** The way in: (catalogue, estate with its goals and decisions, today) to plan, and what there is to say of each case in depth. */
export { planInDepth } from './plan';
