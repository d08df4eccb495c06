/** What is said at the foot of the screen: what was done, and what went wrong. */
class Words {
  notice = $state('');
  fault = $state('');
  /** What the fault has kept from being stored, as a file; none where nothing would be lost. */
  rescue = $state.raw<(() => Promise<void>) | undefined>();

  close(): void {
    this.fault = '';
    this.rescue = undefined;
  }
}

export const words = new Words();
