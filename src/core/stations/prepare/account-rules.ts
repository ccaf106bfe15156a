import { sayStrength } from '../../auth/secret-maker.ts';
import { type SecretTraits, strengthOf } from '../../auth/secret-traits.ts';
import { sayMany } from '../../base/say.ts';
import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import { encodeUserinfo } from '../../net/stream-url.ts';
import type { PrepareFacts, PrepareOffers } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();
const hasUser = ({ user }: Facts<PrepareFacts>): boolean => user !== undefined && user !== '';
const hasAccount = ({ hasAccount: has }: Facts<PrepareFacts>): boolean => has === true;
const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();
/** One “@” with something before it, and a name with a dot behind it. */
function isMailAddress(user: string): boolean {
  const [local = '', domain = '', ...more] = user.split('@');
  return more.length === 0 && local !== '' && domain.slice(1, -1).includes('.') && !/\s/.test(user);
}
/** The bench says the same. */
export const strengthWords = (secret: Pick<SecretTraits, 'bits' | 'guessBits'>): string => {
  const { bits } = strengthOf(secret);
  return `At most ${Math.round(bits)} bits: ${sayStrength(bits)}`;
};
const NEW_SECRET = 'Create a new password here, and set it at the camera.';

/** A streaming account of its own: who may look, under which name, with which secret. */
export const ACCOUNT_RULES = [
  rule({
    id: 'prepare.account',
    question: 'Has it a streaming account, and does it require the login?',
    source: 'each device its own account [A]',
    needs: ['hasAccount'],
    judge: (f) => (f.hasAccount ? 'ok' : f.isOpen === true ? 'tight' : 'unknown'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Stream open to everybody on the network',
        because: () => 'A probe got the stream without an account.',
        do: ['Switch its login on, and create a streaming account.'],
      },
      unknown: {
        severity: 'caution',
        title: () => 'No streaming account yet',
        because: () => 'The account that pulls its streams is not entered.',
        do: ['Create an account that may view and nothing else.'],
      },
    },
    why: 'Whoever may view should not be able to change anything; and one lost camera should not open the others.',
  }),
  rule({
    id: 'prepare.account-administrators',
    question: 'Are its streams pulled with the set-up account?',
    source: 'least right that serves [A]',
    needs: ['user', 'adminUser'],
    asks: (f) => hasUser(f) && f.adminUser !== undefined,
    isTight: (f) => same(f.user, f.adminUser),
    severity: 'fix',
    title: () => 'Streams pulled with the set-up account',
    because: (f) => `Both are called ${f.user}.`,
    do: ['Create a second account that may only view, and pull with it.'],
    mends: (_, offers) => offers.ownName(),
    why: 'Its password then lies in every recorder and every television of the house.',
  }),
  rule({
    id: 'prepare.account-factory',
    question: 'Is its account name one that attackers try first?',
    source: 'names that are tried first [A]; the factory login of the model card',
    needs: ['user', 'factoryUsers'],
    asks: hasUser,
    isTight: (f) => f.factoryUsers.some((one) => same(one, f.user)),
    severity: 'caution',
    title: (f) => `Common account name: ${f.user}`,
    because: (f) => `Every device of its kind comes with an account called ${f.user}.`,
    do: ['Create an account with its own name.'],
    mends: (_, offers) => offers.ownName(),
    why: 'Whoever knows the name has only the password left to guess; and such an account can usually change everything.',
  }),
  rule({
    id: 'prepare.account-makers',
    question: 'Is its account the login of the maker’s cloud?',
    source: 'an e-mail address is the login of a maker’s cloud [A]',
    needs: ['user'],
    asks: hasUser,
    isTight: (f) => isMailAddress(f.user),
    severity: 'fix',
    title: () => 'Account is the login of the maker’s cloud',
    because: () => 'The account name is an e-mail address.',
    do: ['Create an account on the camera itself; the maker’s account stays with the customer.'],
    mends: (_, offers) => offers.ownName(),
    why: 'It opens the customer’s whole account there, and it stops when the maker’s servers do.',
  }),
  rule({
    id: 'prepare.account-space',
    question: 'Does its account name end with a space?',
    source: 'RFC 3986 §3.2.1: a space has no place in a URL',
    needs: ['user'],
    asks: hasUser,
    isTight: (f) => f.user !== f.user.trim(),
    severity: 'fix',
    title: () => 'Account name begins or ends with a space',
    because: () => 'The space is invisible, and it counts.',
    do: ['Create the account again without the space.'],
    mends: (_, offers) => offers.ownName(),
    why: 'One device trims it and another does not: the login then fails for no visible reason.',
  }),
  rule({
    id: 'prepare.account-encoded',
    question: 'Must the account name be encoded in a URL?',
    source: 'RFC 3986 §2.3: unreserved characters',
    needs: ['user'],
    asks: (f) => hasUser(f) && !isMailAddress(f.user ?? ''),
    isTight: (f) => encodeUserinfo(f.user.trim()) !== f.user.trim(),
    severity: 'note',
    title: () => 'Account name needs encoding in a URL',
    because: (f) => `In a URL it reads ${encodeUserinfo(f.user.trim())}.`,
    do: ['Use only letters, digits and - . _ ~.'],
    mends: (_, offers) => offers.ownName(),
    why: 'Destinations that take one URL need it encoded, those with a separate field need it plain: one of them gets it wrong.',
  }),
  rule({
    id: 'prepare.account-case',
    question: 'Do two account names differ only by upper and lower case?',
    source: 'RFC 7616 §3.4: the name is hashed as it is written',
    needs: ['user', 'caseApart'],
    asks: hasUser,
    isTight: (f) => f.caseApart.length > 0,
    severity: 'caution',
    title: () => 'Account names differ only by upper and lower case',
    because: (f) => `${f.user} here, ${f.caseApart.join(', ')} elsewhere.`,
    do: ['Write all of them in lower case.'],
    mends: (_, offers) => offers.ownName(),
    why: 'A television’s keyboard starts with a capital letter, and a camera compares letter by letter.',
  }),
  rule({
    id: 'prepare.password-known',
    question: 'Is its password a well-known one?',
    source: 'passwords that are tried first [A]; the factory login of the model card',
    needs: ['secret'],
    asks: hasAccount,
    fails: (f) => f.secret.isKnown,
    severity: 'stop',
    title: () => 'Well-known password',
    because: () => 'It is the factory password, or one of those that attackers try first.',
    do: [NEW_SECRET],
    why: 'Such cameras are found and opened automatically, within minutes of being reachable.',
  }),
  rule({
    id: 'prepare.password-shared',
    question: 'Has another camera the same password?',
    source: 'each device its own password [A]',
    needs: ['secret'],
    asks: hasAccount,
    isTight: (f) => f.secret.sharedWith.length > 0,
    severity: 'fix',
    title: (f) => `Password shared with ${sayMany(f.secret.sharedWith.length, 'other camera', 'other cameras')}`,
    because: (f) => `It is also the password of ${f.secret.sharedWith.slice(0, 5).join(', ')}.`,
    do: [NEW_SECRET],
    why: 'A camera stolen from a wall reveals its password, and with it all the others.',
  }),
  rule({
    id: 'prepare.password-administrators',
    question: 'Is it the password of the set-up account?',
    source: 'least right that serves [A]',
    needs: ['secret'],
    asks: hasAccount,
    isTight: (f) => f.secret.isAdministrators,
    severity: 'fix',
    title: () => 'Same password as the set-up account',
    because: () => 'Both accounts of the camera have the same password.',
    do: [NEW_SECRET],
    why: 'Whoever may view could then also change it.',
  }),
  rule({
    id: 'prepare.password-space',
    question: 'Does its password begin or end with a space?',
    source: 'seen on many devices [A]',
    needs: ['secret'],
    asks: hasAccount,
    isTight: (f) => f.secret.hasBlankAtEnd,
    severity: 'fix',
    title: () => 'Password begins or ends with a space',
    because: () => 'The space is invisible, and it counts; it often comes along when copying.',
    do: ['Type it again without the space, or create a new one.'],
    why: 'A form trims it, the protocol does not: the same password works here and fails there.',
  }),
  rule({
    id: 'prepare.password-case',
    question: 'Does another password differ only by upper and lower case?',
    source: 'RFC 7616 §3.4: the password is hashed as it is written',
    needs: ['secret'],
    asks: hasAccount,
    isTight: (f) => f.secret.isCaseApart,
    severity: 'caution',
    title: () => 'Another password differs only by upper and lower case',
    because: () => 'It is that of another camera, of the set-up account, or the factory password.',
    do: [NEW_SECRET],
    why: 'One of the two will be typed for the other, and some devices lock the account after a few refusals.',
  }),
  rule({
    id: 'prepare.password-refused',
    question: 'Does every destination take its password?',
    source: 'what the destination and the model card say that they take',
    needs: ['secret', 'refusedBy'],
    asks: hasAccount,
    fails: (f) => f.refusedBy.length > 0,
    severity: 'stop',
    title: () => 'Password cannot be entered everywhere',
    because: (f) => `${f.refusedBy.join('; ')}.`,
    do: ['Create one with the characters and the length that all of them take.'],
    why: 'A form cuts it off or drops a character silently, and the login fails every time.',
  }),
  rule({
    id: 'prepare.password-encoded',
    question: 'Must the password be encoded in a URL?',
    source: 'RFC 3986 §2.3: unreserved characters',
    needs: ['secret'],
    asks: hasAccount,
    isTight: (f) => f.secret.encodedSigns.length > 0,
    severity: 'note',
    title: () => 'Password needs encoding in a URL',
    because: (f) =>
      `${sayMany(f.secret.encodedSigns.length, 'character of it has', 'characters of it have')} another meaning in a URL.`,
    do: ['Create one with letters and digits only; a longer one is as strong.'],
    why: 'Destinations that take one URL need it encoded, those with a separate field need it plain: one of them gets it wrong.',
  }),
  rule({
    id: 'prepare.password-weak',
    question: 'Can the password be guessed?',
    source:
      'the lower of two: bits of the kinds of characters that occur, repeats and runs counted once; and how it is guessed by words, names, years and rows of keys (zxcvbn, Wheeler, USENIX Security 2016); 10¹¹ guesses a second [A]',
    needs: ['secret', 'strongBits', 'weakBits'],
    asks: (f) => hasAccount(f) && f.secret?.isKnown !== true,
    judge: (f) => {
      const { bits, isProven } = strengthOf(f.secret);
      const verdict = atLeast(bits, f.strongBits, f.weakBits);
      // so many characters may still spell a word: strong is said only where somebody looked
      return verdict === 'ok' && !isProven ? 'unknown' : verdict;
    },
    when: {
      'will-not-work': {
        severity: 'fix',
        title: () => 'Password can be guessed',
        because: (f) => `${strengthWords(f.secret)}.`,
        do: [NEW_SECRET],
      },
      tight: {
        severity: 'caution',
        title: () => 'Password too weak',
        because: (f) => `${strengthWords(f.secret)}; from ${Math.round(f.strongBits)} bits it takes years.`,
        do: [NEW_SECRET],
      },
    },
    why: 'A login that is overheard once is attacked offline, as fast as computers can.',
  }),
] as const;
