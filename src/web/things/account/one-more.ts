import type { LedgerLine } from '../../../core/auth/login-ledger.ts';
import { sayMany } from '../../../core/base/say.ts';
import { questions } from '../question/index.ts';

const LOCKS =
  'Many devices lock an account after three or five refused logins, for minutes or until somebody resets them. Other programs with an old password use up logins too.';

/** Asks whether one login more may be sent where the account was refused before. */
export const askOneMore = (host: string, user: string, line: LedgerLine | undefined): Promise<boolean> =>
  questions.ask({
    title: `Log in to ${host} once more?`,
    lines: [
      line
        ? `Account “${user}” was refused there ${sayMany(line.refused, 'time')} in the last ten minutes${line.isLocked ? ', the last time as if it were locked' : ''}.`
        : `Account “${user}” was refused there before.`,
      LOCKS,
    ],
    rows: [],
    yes: 'Log in once more',
    no: 'Do not log in',
  });

/** Asks whether a password may go readable to one device. */
export const askReadable = (host: string, user: string): Promise<boolean> =>
  questions.ask({
    title: `Send the password of “${user}” readable to ${host}?`,
    lines: [
      'By Basic without TLS it crosses the network as it is: anyone listening there reads it.',
      'The device offers a login that protects it. Allow this only where that login is broken, on a network of its own.',
    ],
    rows: [],
    yes: 'Send it readable',
    no: 'Do not send it',
  });
