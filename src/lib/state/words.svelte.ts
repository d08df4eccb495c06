/** What is said at the foot of the screen: what was done, and what went wrong. */
class Words {
  notice = $state('');
  fault = $state('');
}

export const words = new Words();
