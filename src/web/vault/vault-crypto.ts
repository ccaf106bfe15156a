import type { Entries, SealedVault, VaultKey } from './vault-entries.ts';

/** OWASP Password Storage Cheat Sheet 2023: 600,000 iterations for PBKDF2-HMAC-SHA-256. */
export const KDF_ITERATIONS = 600_000;
const SALT_BYTES = 16;
const IV_BYTES = 12;

export const newSalt = (): Uint8Array<ArrayBuffer> => crypto.getRandomValues(new Uint8Array(SALT_BYTES));

/** The key of a passphrase; it cannot be taken out of the browser's keeping again. */
export async function deriveKey(
  passphrase: string,
  salt: Uint8Array<ArrayBuffer>,
  iterations: number,
): Promise<VaultKey> {
  const text = new TextEncoder().encode(passphrase.normalize('NFC')); // two keyboards may type one letter differently
  const base = await crypto.subtle.importKey('raw', text, 'PBKDF2', false, ['deriveKey']);
  const derivation = { name: 'PBKDF2', hash: 'SHA-256', salt, iterations };
  const key = await crypto.subtle.deriveKey(derivation, base, { name: 'AES-GCM', length: 256 }, false, [
    'encrypt',
    'decrypt',
  ]);
  return { key, salt, iterations };
}

export async function sealSecrets({ key, salt, iterations }: VaultKey, secrets: Entries): Promise<SealedVault> {
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  const text = new TextEncoder().encode(JSON.stringify(secrets));
  const sealed = new Uint8Array(await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, text));
  return { format: 'clear-tap/vault', version: 2, salt, iterations, iv, sealed };
}

/** The secrets, or `null` when the key is not the right one or the bytes were changed. */
export async function openSecrets({ key }: VaultKey, { iv, sealed }: SealedVault): Promise<Entries | null> {
  try {
    const text = new TextDecoder().decode(await crypto.subtle.decrypt({ name: 'AES-GCM', iv }, key, sealed));
    return JSON.parse(text);
  } catch {
    return null; // AES-GCM tells a wrong key and changed bytes apart from nothing else
  }
}
