import { sayMany } from '../../base/say.ts';
import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
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
const NEW_SECRET = 'Make a new secret here, and set it at the camera.';

/** A streaming account of its own: who may look, under which name, with which secret. */
export const ACCOUNT_RULES = [
  rule({
    id: 'prepare.account',
    source: 'each device an account of its own [A]',
    needs: ['hasAccount'],
    judge: (f) => (f.hasAccount ? 'ok' : f.isOpen === true ? 'tight' : 'unknown'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Everybody on the network sees its picture',
        because: () => 'A probe was let in without an account.',
        do: ['Switch its login on, and make a streaming account.'],
      },
      unknown: {
        severity: 'watch',
        title: () => 'It has no streaming account yet',
        because: () => 'Nobody has said with which account its streams are drawn.',
        do: ['Make an account that may look and nothing else.'],
      },
    },
    why: 'What may look should not be able to change anything; and what is lost with one camera should open no other.',
  }),
  rule({
    id: 'prepare.account-administrators',
    source: 'least right that serves [A]',
    needs: ['user', 'adminUser'],
    asks: (f) => hasUser(f) && f.adminUser !== undefined,
    judge: (f) => tightIf(same(f.user, f.adminUser)),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Its streams are drawn with the account that sets it up',
        because: (f) => `Both are called ${f.user}.`,
        do: ['Make a second account that may look only, and draw with it.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'Its secret then lies in every recorder and every television of the house.',
  }),
  rule({
    id: 'prepare.account-factory',
    source: 'names that are tried first [A]; the login of the model card',
    needs: ['user', 'factoryUsers'],
    asks: hasUser,
    judge: (f) => tightIf(f.factoryUsers.some((one) => same(one, f.user))),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `${f.user} is the name that everybody tries first`,
        because: (f) => `Every one of its kind comes with an account called ${f.user}.`,
        do: ['Make an account with a name of its own.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'Whoever knows the name has only the secret left to guess; and such an account can mostly change everything.',
  }),
  rule({
    id: 'prepare.account-makers',
    source: 'an address of mail is the login of a maker’s cloud [A]',
    needs: ['user'],
    asks: hasUser,
    judge: (f) => tightIf(isMailAddress(f.user)),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Its account is the login of a maker’s cloud',
        because: () => 'Its name is an address of mail.',
        do: ['Make an account on the camera itself; that of the maker stays with the customer.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'It opens the customer’s whole account there, and it stops when the maker’s servers do.',
  }),
  rule({
    id: 'prepare.account-blank',
    source: 'RFC 3986 §3.2.1: a blank has no place in a URL',
    needs: ['user'],
    asks: hasUser,
    judge: (f) => tightIf(f.user !== f.user.trim()),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'A blank stands at the end of its account’s name',
        because: () => 'It is not seen, and it counts.',
        do: ['Make it anew without the blank.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'One device trims it and the other does not: the login then fails for no visible reason.',
  }),
  rule({
    id: 'prepare.account-encoded',
    source: 'RFC 3986 §2.3: unreserved signs',
    needs: ['user'],
    asks: (f) => hasUser(f) && !isMailAddress(f.user ?? ''),
    judge: (f) => tightIf(encodeUserinfo(f.user.trim()) !== f.user.trim()),
    when: {
      tight: {
        severity: 'note',
        title: () => 'Its account’s name must be encoded in a URL',
        because: (f) => `In a URL it reads ${encodeUserinfo(f.user.trim())}.`,
        do: ['Take letters, digits and - . _ ~ alone.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'Destinations that take one URL want it encoded, those with a field of their own want it plain: one of them gets it wrong.',
  }),
  rule({
    id: 'prepare.account-case',
    source: 'RFC 7616 §3.4: the name is hashed as it is written',
    needs: ['user', 'caseApart'],
    asks: hasUser,
    judge: (f) => tightIf(f.caseApart.length > 0),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Two accounts differ by the case of a letter alone',
        because: (f) => `${f.user} here, ${f.caseApart.join(', ')} elsewhere.`,
        do: ['Write all of them in small letters.'],
      },
    },
    mends: (_, offers) => offers.ownName(),
    why: 'A television’s keyboard begins with a large letter, and a camera compares letter by letter.',
  }),
  rule({
    id: 'prepare.secret-known',
    source: 'secrets that are tried first [A]; the login of the model card',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => failsIf(f.secret.isKnown),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Its secret is the one that everybody knows',
        because: () => 'It is the one it came with, or one of those that are tried first.',
        do: [NEW_SECRET],
      },
    },
    why: 'Such cameras are found and opened by machines, within minutes of being reachable.',
  }),
  rule({
    id: 'prepare.secret-shared',
    source: 'each device a secret of its own [A]',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => tightIf(f.secret.sharedWith.length > 0),
    when: {
      tight: {
        severity: 'fix',
        title: (f) =>
          `${sayMany(f.secret.sharedWith.length, 'other camera has', 'other cameras have')} the same secret`,
        because: (f) => `It is also that of ${f.secret.sharedWith.slice(0, 5).join(', ')}.`,
        do: [NEW_SECRET],
      },
    },
    why: 'A camera that is stolen from a wall gives its secret away, and with it all of them.',
  }),
  rule({
    id: 'prepare.secret-administrators',
    source: 'least right that serves [A]',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => tightIf(f.secret.isAdministrators),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'It is the secret of the one who sets it up',
        because: () => 'Both accounts of the camera have the same.',
        do: [NEW_SECRET],
      },
    },
    why: 'Whoever may look could then also change it.',
  }),
  rule({
    id: 'prepare.secret-blank',
    source: 'seen at many devices [A]',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => tightIf(f.secret.hasBlankAtEnd),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'A blank stands at the end of its secret',
        because: () => 'It is not seen, and it counts; it often comes along when one copies.',
        do: ['Type it anew without the blank, or make a new one.'],
      },
    },
    why: 'A form trims it, the wire does not: the same secret works here and fails there.',
  }),
  rule({
    id: 'prepare.secret-case',
    source: 'RFC 7616 §3.4: the secret is hashed as it is written',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => tightIf(f.secret.isCaseApart),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Another secret differs from it by the case of letters alone',
        because: () => 'It is that of another camera, of the one who sets it up, or the one it came with.',
        do: [NEW_SECRET],
      },
    },
    why: 'One of the two will be typed for the other, and some devices lock the account after a few wrong ones.',
  }),
  rule({
    id: 'prepare.secret-refused',
    source: 'what the destination and the model card say that they take',
    needs: ['secret', 'refusedBy'],
    asks: hasAccount,
    judge: (f) => failsIf(f.refusedBy.length > 0),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Its secret cannot be entered everywhere',
        because: (f) => `${f.refusedBy.join('; ')}.`,
        do: ['Make one of the signs and the length that all of them take.'],
      },
    },
    why: 'A form cuts it off or swallows a sign without a word, and the login fails for ever.',
  }),
  rule({
    id: 'prepare.secret-encoded',
    source: 'RFC 3986 §2.3: unreserved signs',
    needs: ['secret'],
    asks: hasAccount,
    judge: (f) => tightIf(f.secret.encodedSigns.length > 0),
    when: {
      tight: {
        severity: 'note',
        title: () => 'Its secret must be encoded in a URL',
        because: (f) =>
          `${sayMany(f.secret.encodedSigns.length, 'sign of it means', 'signs of it mean')} something else in a URL.`,
        do: ['Make one of letters and digits alone; a longer one is as strong.'],
      },
    },
    why: 'Destinations that take one URL want it encoded, those with a field of their own want it plain: one of them gets it wrong.',
  }),
  rule({
    id: 'prepare.secret-weak',
    source: 'bits of the kinds of signs that occur, rows and repeats counted once [A]',
    needs: ['secret', 'strongBits', 'weakBits'],
    asks: (f) => hasAccount(f) && f.secret?.isKnown !== true,
    judge: (f) => atLeast(f.secret.bits, f.strongBits, f.weakBits),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: () => 'Its secret is guessed',
        because: (f) =>
          `It has at most ${Math.round(f.secret.bits)} bits; below ${f.weakBits} it is guessed in an hour.`,
        do: [NEW_SECRET],
      },
      tight: {
        severity: 'watch',
        title: () => 'Its secret is short',
        because: (f) => `It has at most ${Math.round(f.secret.bits)} bits; from ${f.strongBits} on nobody guesses it.`,
        do: ['Make a longer one.'],
      },
    },
    why: 'A login that is overheard once is guessed elsewhere, as fast as machines can.',
  }),
] as const;
