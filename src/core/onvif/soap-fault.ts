import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { below, childOf, type Envelope, textIn, type XmlNode } from './envelope.ts';

/** What a refusal means, whatever words the device has for it. */
export type SoapFaultKind = 'not-authorized' | 'locked' | 'not-supported' | 'bad-argument' | 'other';

export interface SoapFault {
  readonly kind: SoapFaultKind;
  /** “ter:NotAuthorized”, the most particular code that it gives. */
  readonly code: string;
  readonly reason: string;
}

/** Deeper subcodes are none of ONVIF's. */
const MOST_SUBCODES = 4;
const MOST_REASON = 200;

/** Codes by their local name, in small letters. Source: ONVIF Core §5.11.2.2, table of generic faults. */
const KINDS: Readonly<Record<string, SoapFaultKind>> = {
  notauthorized: 'not-authorized',
  senderneedsauthorization: 'not-authorized',
  failedauthentication: 'not-authorized',
  operationprohibited: 'not-authorized',
  // OASIS WSS SOAP Message Security 1.1 §12
  failedcheck: 'not-authorized',
  invalidsecurity: 'not-authorized',
  invalidsecuritytoken: 'not-authorized',
  securitytokenunavailable: 'not-authorized',
  messageexpired: 'not-authorized',
  accountlocked: 'locked',
  useraccountlocked: 'locked',
  locked: 'locked',
  actionnotsupported: 'not-supported',
  notsupported: 'not-supported',
  unknownaction: 'not-supported',
  optionalactionnotimplemented: 'not-supported',
  mustunderstand: 'not-supported',
  invalidargval: 'bad-argument',
  invalidargs: 'bad-argument',
  wellformed: 'bad-argument',
  tagmismatch: 'bad-argument',
};

const localName = (code: string): string => code.slice(code.lastIndexOf(':') + 1).toLowerCase();

const LOCKED_WORDS =
  /\block(?:ed|out)\b|too many (?:failed |login |logon )?(?:attempts|logins|tries)|temporarily blocked/i;
/** Refusals that say in words alone what they are about. */
const WORDS: readonly (readonly [RegExp, SoapFaultKind])[] = [
  [/not ?authori[sz]ed|unauthori[sz]ed|authenticat|password/i, 'not-authorized'],
  [/not ?(?:supported|implemented)|unknown (?:action|method)|no such (?:operation|method)/i, 'not-supported'],
];

function kindOf(codes: readonly string[], reason: string): SoapFaultKind {
  // “locked” is said in words beside a code that says “not authorized”
  if (LOCKED_WORDS.test(reason)) return 'locked';
  for (const code of codes.toReversed()) {
    const kind = Object.hasOwn(KINDS, localName(code)) ? KINDS[localName(code)] : undefined;
    if (kind) return kind;
  }
  return WORDS.find(([words]) => words.test(reason))?.[1] ?? 'other';
}

/** Codes of SOAP 1.2: a value, and subcodes within each other; of SOAP 1.1 one text. */
function codesOf(fault: XmlNode): readonly string[] {
  const codes: string[] = [];
  let at = childOf(fault, 'Code');
  for (let depth = 0; at && depth < MOST_SUBCODES; depth++) {
    codes.push(textIn(at, 'Value'));
    at = childOf(at, 'Subcode');
  }
  return [...codes, textIn(fault, 'faultcode')].filter((code) => code !== '');
}

/** The refusal in an answer; `null` when it is none. Source: SOAP 1.2 part 1 §5.4, SOAP 1.1 §4.4. */
export function soapFaultIn({ body }: Pick<Envelope, 'body'>): SoapFault | null {
  if (!Object.hasOwn(body, 'Fault')) return null;
  const fault = childOf(body, 'Fault') ?? {};
  const codes = codesOf(fault);
  const said = textIn(below(fault, 'Reason'), 'Text') || textIn(fault, 'faultstring');
  const reason = clipText(oneLine(said), MOST_REASON);
  return { kind: kindOf(codes, reason), code: clipText(oneLine(codes.at(-1) ?? ''), 80), reason };
}
