import { X509Certificate } from 'node:crypto';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CERTIFICATES } from '../../standins/certificates.ts';
import { nameSaid, namesHost } from './certificate.ts';
import { signatureHashOf } from './certificate-signature.ts';

// made by a general TLS tool, for nobody: one key each, thrown away
const MD5 =
  'MIIDJjCCAg6gAwIBAgIUTBg7R8pSmd0qOgpt+abvgGmuMjYwDQYJKoZIhvcNAQEEBQAwFDESMBAGA1UEAwwJVGFybiBnYXRlMB4XDTI2MTIwMjExMTc0N1oXDTM2MTEyOTExMTc0N1owFDESMBAGA1UEAwwJVGFybiBnYXRlMIIBIjANBgkqhkiG9w0BAQEFAAOCAQ8AMIIBCgKCAQEAznVz4HoFRx1KryNaeFYWfUXaCwAY8U1Oc5/hwuoDE1APWA8NZOLcoBWKxLD+0H7+Yzgy3YM4mPMbqQ2iGgppskZRIY5+fv88K6gWD9MpWfIOIH8yaUe2+4OxuWMSQJTCz3RmBR0/x7yvCd6yJ/lmtA/lj8AAu7JE2s2CrteHiz2RMhDgpB2lejtJ+jS85v4jFvfKpjRYEvn8VJCuCtoKFeIWBa7kotWdZpHwcwwQ/Xhw94mdQo7f+IFcetm0S/6pW3/uqaqHvzsyJuYGddmzQuLAqLw3fDp7sDxv9SJf0pJsAh1fEjQAmcL4JBlKZe+q8DbWIjj0V1Yodebffss2jwIDAQABo3AwbjAdBgNVHQ4EFgQUFz3iqTysV0bpIOU4DngW+LXp+2IwHwYDVR0jBBgwFoAUFz3iqTysV0bpIOU4DngW+LXp+2IwDwYDVR0TAQH/BAUwAwEB/zAbBgNVHREEFDAShwQKTQQVggp0YXJuLmxvY2FsMA0GCSqGSIb3DQEBBAUAA4IBAQAcUMFSYcrL4nCmZ1KLqk7o+c8eTB7mLKs/Sfb9eFmEFJkss8sY8HJYsLsqeaTEb+dkb5k4H1tmdD+Ew9XrP8GELR28bQcPORkmSlLzSA6WLSUHnPfiAUvY2V+oMjPmJv2wxdTpcUb3o/6vwih06i4/N3nUDsM8qGwzGczRRFUgPn96519aAwUE3Pi7lJoLzrhdHEd6rm3TuKyHPu6XyeS51+Xq0nU23c5L6adwMXjd+wc0M/2cfHGv0NQsZSI04hY9ZYESQ8mu98RiAOu+/qEpegDpLurj1ZBK1pNa/vzWwcTo5EDxwoSnW40ywa+BpxTEL7JOpmqOayFxSd+4nZzS';
const SHA1 =
  'MIIDJjCCAg6gAwIBAgIURgl2sZ320L1IJVzzSOXSMJncl6kwDQYJKoZIhvcNAQEFBQAwFDESMBAGA1UEAwwJVGFybiBnYXRlMB4XDTI2MTIwMjExMTc0OFoXDTM2MTEyOTExMTc0OFowFDESMBAGA1UEAwwJVGFybiBnYXRlMIIBIjANBgkqhkiG9w0BAQEFAAOCAQ8AMIIBCgKCAQEAnuEXvMmRqffWlIgmGoF1WwMLgkg8Y9+d8R1TVkAV3RJUX8+Kkw5/Gow78uX5HIZBKREUn7Nah+scZ/qfh/OYGtANckL/u7FmDh7XP21ChqTpK18UWxJF1F8BibD7qBcGY1pB0mcW/RhcqxVHOONLPvDtcV3YIbrOMRfaJIQvLwerV0dy5T7eJh/SbAHq4mOssXCEFm4ra9S8ySm4/rkm9Qx3m/1dBzSX6NlrH7pEtxG5DoeFF94DpCeL2pCXqleAjGf0qbdKqjU2Hj4jH71r9rfeuEQLFZNegw32vz4oTczd+7GSWZ7hb1zWcT/su48R191hS/+Wdse4G9V0NddvSwIDAQABo3AwbjAdBgNVHQ4EFgQUsDEk4w3aXPmpHKhzQsyEThPd5i8wHwYDVR0jBBgwFoAUsDEk4w3aXPmpHKhzQsyEThPd5i8wDwYDVR0TAQH/BAUwAwEB/zAbBgNVHREEFDAShwQKTQQVggp0YXJuLmxvY2FsMA0GCSqGSIb3DQEBBQUAA4IBAQCHXZaF8SLTZzP6d3Er5tgOhh7b+R5lRtYqFsn0Hb+8o+7/1kjc9q3nhA+XJDqTMgm2klcW4O5AufXCG0ZjOaD/1aPOfp5x9QK16qTeYPfniFzVSeT7M08LFowealCry7JoYvXIEhQ1DSSY0h9oK8umwMAuyUF2A7f34lwu5x1BRUgteg3mPzjwbD/xR1/WK1a6ZfQQZRkI00xKGXQ31STvNREt0o+bDFvIP0HsmYUzgYkcoD+vZYSEhloQfvN0ZlY66G5hkffl0iK7u7axI87KlFQ2Gq9qMrsXXjNa4NRjhPclYskotboqqg7+yQ9OQ91cgOAl5iAlg4e4nHW90Zz3';
const SHA384 =
  'MIIDJjCCAg6gAwIBAgIUepbgPHnx7r84HlmCw7hfWSQwydgwDQYJKoZIhvcNAQEMBQAwFDESMBAGA1UEAwwJVGFybiBnYXRlMB4XDTI2MTIwMjExMTc0OFoXDTM2MTEyOTExMTc0OFowFDESMBAGA1UEAwwJVGFybiBnYXRlMIIBIjANBgkqhkiG9w0BAQEFAAOCAQ8AMIIBCgKCAQEA0focYe0iOHMxP6jboSvN3s0qqUZHhyluOAH62CqJU5Uk14/75VEICnl8++VzZVJgbgRuK6nlchszkQQMZV7kMLsp1z1Yn/79mYR6JtQoXpim5C+WnxqE0CSNuuEnrrAmZ2rfUMLloaMR3Avt9eGZunYZfqocRenqiAKzmjS98gYRxSIXWNtNTJ2YP+GZAvhl5ecqYgrx7qKHoXUWg7sKxn6/joOUArnTh+Zqg5wptYFmBNrCkMo1QzOcB/cY2tMIG/7lwQ5g8uhtKgV9bXF6xM2iso8u9GKWDmdA+OIqa+EvMwrjZ7vrS6FhM7xSAWYTmBqkZsRpnxC9bP6+liwGawIDAQABo3AwbjAdBgNVHQ4EFgQUzQJzneDEbokbG9EHNVPgPrYCuCQwHwYDVR0jBBgwFoAUzQJzneDEbokbG9EHNVPgPrYCuCQwDwYDVR0TAQH/BAUwAwEB/zAbBgNVHREEFDAShwQKTQQVggp0YXJuLmxvY2FsMA0GCSqGSIb3DQEBDAUAA4IBAQCM7swTDRFpz4s9Ivwc1GpcNdb2/2dJvSSgRBQFrhzHPqsTFVpPkKXgmpWhwXJLGPFDsTymH88RvweP0LiNhyNe+zsoe164QbJeTVYg705uivB80qTBuzNj8nkHCiPlDa9Mi7VSOZ5OqcYBR32Vmmv8bFNl5CfYQ9fgNxv37moQlOd2csmqSdHgmcw8wHtmW4++w686KI//iKQPbxk78GONl4MK6swE/Hz7L0eImHvtKjmahYCcUPpgc9vjfJNPTcvTWKXntPC4Js5n0I6uykleP+Px0NfZhe53itM9ENY5gyVo3eslBth6wbTeBcGaw8GSST51s6rhOFKSWakrpj8u';

const derOf = (base64: string): Uint8Array => Uint8Array.from(Buffer.from(base64, 'base64'));

test.each([
  { hash: 'MD5', der: derOf(MD5) },
  { hash: 'SHA-1', der: derOf(SHA1) },
  { hash: 'SHA-384', der: derOf(SHA384) },
  { hash: 'SHA-256', der: new X509Certificate(CERTIFICATES['self-signed'].cert).raw },
])('a certificate is read to be signed by $hash', ({ hash, der }) => expect(signatureHashOf(der)).toBe(hash));

test('whatever bytes come, a hash is named or none is, and a cut certificate names none', () => {
  const der = derOf(SHA1);
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
      expect([null, 'MD5', 'SHA-1', 'SHA-224', 'SHA-256', 'SHA-384', 'SHA-512', 'Ed25519']).toContain(
        signatureHashOf(bytes),
      );
    }),
  );
  fc.assert(
    fc.property(fc.nat(der.length - 1), (length) => expect(signatureHashOf(der.subarray(0, length))).toBeNull()),
  );
});

/** Eight groups from a number, written as somebody may write them. */
const ipv6 = fc
  .tuple(fc.uint8Array({ minLength: 16, maxLength: 16 }), fc.boolean(), fc.boolean())
  .map(([bytes, isLong, isUpper]) => {
    const groups = [...Array(8).keys()].map((at) => ((bytes[2 * at] ?? 0) << 8) | (bytes[2 * at + 1] ?? 0));
    const text = groups.map((group) => group.toString(16).padStart(isLong ? 4 : 1, '0')).join(':');
    return { value: groups.join(), text: isUpper ? text.toUpperCase() : text };
  });
const ipv4 = fc.ipV4();

test('an address is compared by its value, and only with addresses', () => {
  fc.assert(
    fc.property(ipv6, ipv6, (a, b) => {
      expect(namesHost([a.text], `[${b.text}]`)).toBe(a.value === b.value);
      expect(namesHost([a.text.toUpperCase()], a.text.toLowerCase())).toBe(true);
    }),
  );
  fc.assert(
    fc.property(ipv4, (address) => {
      expect(namesHost([nameSaid({ kind: 'ip', value: address })], address)).toBe(true);
      expect(namesHost([nameSaid({ kind: 'dns', value: address })], address)).toBe(false);
    }),
  );
});

test.each([
  { names: ['fe80::1'], host: '[fe80:0:0:0:0:0:0:1]', isNamed: true },
  { names: ['gate.local'], host: 'GATE.local', isNamed: true },
  { names: ['*.local'], host: 'gate.local', isNamed: true },
  { names: ['*.local'], host: 'a.gate.local', isNamed: false },
  { names: ['gate.local'], host: '10.77.4.21', isNamed: false },
])('$names names $host: $isNamed', ({ names, host, isNamed }) => expect(namesHost(names, host)).toBe(isNamed));
