import type { Credentials, Protocol } from './told';

/** What was typed to be let in to machines. It lives in this tab until it is closed or left, and is stored nowhere. */
class LetIn {
  user = $state('');
  password = $state('');
  key = $state('');
  passphrase = $state('');
  community = $state('');
  authentication = $state('');
  privacy = $state('');
  /** SNMP by a user, version 3, in the place of a community. */
  isVersion3 = $state(false);

  /** What a request carries; undefined while something is missing. */
  for(by: Protocol, user = this.user): Credentials | undefined {
    if (by === 'snmp' && !this.isVersion3)
      return this.community === '' ? undefined : { by, community: this.community };
    if (user.trim() === '') return undefined;
    const named = { user: user.trim() };
    if (by === 'snmp')
      return {
        by,
        ...named,
        ...(this.authentication === '' ? {} : { authentication: this.authentication }),
        ...(this.privacy === '' ? {} : { privacy: this.privacy })
      };
    if (by === 'redfish') return this.password === '' ? undefined : { by, ...named, password: this.password };
    if (this.password === '' && this.key === '') return undefined;
    return {
      by,
      ...named,
      ...(this.password === '' ? {} : { password: this.password }),
      ...(this.key === '' ? {} : { key: this.key }),
      ...(this.passphrase === '' ? {} : { passphrase: this.passphrase })
    };
  }

  forget(): void {
    this.password = this.key = this.passphrase = this.community = this.authentication = this.privacy = '';
  }
}

export const letIn = new LetIn();
