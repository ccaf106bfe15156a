import { expect, test } from '@jest/globals';
import type { Bound } from './password-place.ts';
import { createVault } from './vault.ts';
import type { Vault, VaultStorage } from './vault-contract.ts';
import { deriveKey, newSalt, openSecrets, sealSecrets } from './vault-crypto.ts';
import type { SealedVault } from './vault-entries.ts';

/** Few rounds: the strength is a constant of its own, the shape is what is tested. */
const FAST = 1000;
const BOUND: Bound = {
  siteName: 'Alder Mill',
  cameraId: 'sluice',
  cameraName: 'Sluice rail',
  user: 'op',
  places: [{ host: '10.77.4.21', port: 554, line: 'plain', inPath: false }],
  mayGoReadable: false,
};
const PASSPHRASE = 'four grey herons wading';

function memoryStorage(): VaultStorage & {
  kept: SealedVault | null;
  isFull: boolean;
  isBlocked: boolean;
  writes: SealedVault[];
} {
  const storage = {
    kept: null as SealedVault | null,
    isFull: false,
    isBlocked: false,
    writes: [] as SealedVault[],
    read: async () => {
      if (storage.isBlocked) throw new DOMException('blocked', 'SecurityError');
      return storage.kept;
    },
    write: async (vault: SealedVault) => {
      if (storage.isFull) throw new DOMException('no room', 'QuotaExceededError');
      storage.kept = vault;
      storage.writes.push(vault);
    },
    remove: async () => {
      if (storage.isBlocked) throw new DOMException('blocked', 'SecurityError');
      storage.kept = null;
    },
    alone: <T>(work: () => Promise<T>): Promise<T> => {
      const done = storage.last.then(work);
      storage.last = done.catch(() => {});
      return done;
    },
    /** One after the other, as a Web Lock has it. */
    last: Promise.resolve() as Promise<unknown>,
  };
  return storage;
}
/** Until what was typed is kept, or it is known why not. */
async function settled(...vaults: readonly Vault[]): Promise<void> {
  while (vaults.some(({ unkept, problem }) => unkept > 0 && problem === null))
    await new Promise((resolve) => setTimeout(resolve, 1));
}
const latin = (vault: SealedVault | null): string =>
  vault ? String.fromCharCode(...vault.sealed, ...vault.iv, ...vault.salt) : '';

/** An open vault whose last secret its store had no room for. */
async function withUnkeptSecret(storage: ReturnType<typeof memoryStorage>): Promise<Vault> {
  const vault = await createVault(storage, () => 'site', FAST);
  await vault.protect(PASSPHRASE);
  storage.isFull = true;
  vault.set('a', 'x', BOUND);
  await settled(vault);
  return vault;
}

test('without a passphrase secrets are in memory and nowhere else', async () => {
  const storage = memoryStorage();
  const vault = await createVault(storage, () => 'site', FAST);
  vault.set('a', 'Weir & Gate/7', BOUND);
  expect(vault).toMatchObject({ state: 'memory', size: 1 });
  expect(vault.get('a')).toBe('Weir & Gate/7');
  expect(storage.kept).toBeNull();
});

test('under a passphrase they are kept sealed, and come back by the right words alone', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  first.set('a', 'Weir & Gate/7', BOUND);
  await first.protect(PASSPHRASE);
  first.set('b', 'oiled#laces', BOUND);
  await settled(first);
  expect(latin(storage.kept)).not.toMatch(/Weir|laces|heron/);

  const second = await createVault(storage, () => 'site', FAST);
  expect(second.state).toBe('locked');
  expect(second.get('a')).toBeNull();
  expect(await second.unlock('four grey herons walking')).toBe(false);
  expect(second.state).toBe('locked');
  expect(await second.unlock(PASSPHRASE)).toBe(true);
  expect([second.get('a'), second.get('b')]).toEqual(['Weir & Gate/7', 'oiled#laces']);
  await second.lock();
  expect(second).toMatchObject({ state: 'locked', size: 0 });
});

test('what a newer program sealed is not touched, and said', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  await first.protect(PASSPHRASE);
  const newer = { ...storage.kept, version: 3 } as unknown as SealedVault;
  storage.kept = newer;
  const second = await createVault(storage, () => 'site', FAST);
  expect(await second.unlock(PASSPHRASE)).toBe(false);
  expect(second.problem).toMatch(/newer/);
  expect(storage.kept).toBe(newer);
});

test('what is typed while it is locked is kept with the rest once it is open', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  first.set('a', 'old', BOUND);
  first.set('b', 'stays', BOUND);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  second.set('a', 'new', BOUND);
  expect(second.get('a')).toBe('new');
  await second.unlock(PASSPHRASE);
  const third = await createVault(storage, () => 'site', FAST);
  await third.unlock(PASSPHRASE);
  expect([third.get('a'), third.get('b')]).toEqual(['new', 'stays']);
});

test('secrets changed one right after the other are all kept, each as it was typed last', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  for (const ref of ['a', 'b', 'c']) first.set(ref, 'old', BOUND);
  await first.protect(PASSPHRASE);
  const before = storage.writes.length;
  for (const ref of ['a', 'b', 'c']) first.set(ref, `new ${ref}`, BOUND);
  first.set('b', 'newest b', BOUND);
  await settled(first);
  expect(['a', 'b', 'c'].map((ref) => first.get(ref))).toEqual(['new a', 'newest b', 'new c']);
  expect(storage.writes.length - before).toBeLessThan(4); // those that wait are one
  const second = await createVault(storage, () => 'site', FAST);
  await second.unlock(PASSPHRASE);
  expect(['a', 'b', 'c'].map((ref) => second.get(ref))).toEqual(['new a', 'newest b', 'new c']);
});

test('two tabs under one passphrase do not lose each other’s secrets', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  await second.unlock(PASSPHRASE);
  first.set('of-first', '1', BOUND);
  await settled(first);
  second.set('of-second', '2', BOUND);
  await settled(second);
  const third = await createVault(storage, () => 'site', FAST);
  await third.unlock(PASSPHRASE);
  expect([third.get('of-first'), third.get('of-second')]).toEqual(['1', '2']);
});

test('a passphrase changed in another tab is not undone by this one, and what was typed here is kept once it is open', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  first.set('a', 'x', BOUND);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  await second.unlock(PASSPHRASE);
  second.set('of-second', '2', BOUND);
  await settled(second);
  await first.protect('another one entirely');
  second.set('late', '3', BOUND);
  await settled(second);
  expect(second.state).toBe('locked');
  expect(second.problem).toMatch(/changed in another tab/);
  expect(await second.unlock(PASSPHRASE)).toBe(false);
  expect(await second.unlock('another one entirely')).toBe(true);
  expect(second.problem).toBeNull();
  const third = await createVault(storage, () => 'site', FAST);
  await third.unlock('another one entirely');
  expect(['a', 'of-second', 'late'].map((ref) => third.get(ref))).toEqual(['x', '2', '3']);
});

test('a new passphrase closes the old one out; forgetting leaves nothing', async () => {
  const storage = memoryStorage();
  const vault = await createVault(storage, () => 'site', FAST);
  vault.set('a', 'x', BOUND);
  await vault.protect(PASSPHRASE);
  await vault.protect('another one entirely');
  const again = await createVault(storage, () => 'site', FAST);
  expect(await again.unlock(PASSPHRASE)).toBe(false);
  expect(await again.unlock('another one entirely')).toBe(true);
  await again.forget();
  expect(again).toMatchObject({ state: 'memory', size: 0 });
  expect(storage.kept).toBeNull();
});

test('what is typed while the rest is sealed is kept too', async () => {
  const storage = memoryStorage();
  const vault = await createVault(storage, () => 'site', FAST);
  vault.set('a', 'x', BOUND);
  const write = storage.write;
  storage.write = async (sealed) => {
    storage.write = write;
    vault.set('late', 'y', BOUND);
    await write(sealed);
  };
  await vault.protect(PASSPHRASE);
  await settled(vault);
  expect([vault.keeps('a'), vault.keeps('late'), vault.unkept]).toEqual([true, true, 0]);
  const again = await createVault(storage, () => 'site', FAST);
  await again.unlock(PASSPHRASE);
  expect(again.get('late')).toBe('y');
});

test('a store that is full is told, and the secret lasts for the visit', async () => {
  const vault = await withUnkeptSecret(memoryStorage());
  expect(vault.problem).toMatch(/for this visit only/);
  expect(vault.get('a')).toBe('x');
});

test('a store that refuses: nothing is called kept that is not, and nothing is lost by trying', async () => {
  const storage = memoryStorage();
  const vault = await createVault(storage, () => 'site', FAST);
  vault.set('a', 'x', BOUND);
  storage.isFull = true;
  await expect(vault.protect(PASSPHRASE)).rejects.toThrow(/could not be saved encrypted.*still here/);
  expect([vault.unkept, vault.keeps('a')]).toEqual([1, false]);
  expect(vault).toMatchObject({ state: 'memory', size: 1, problem: expect.stringMatching(/could not be saved/) });
  expect(vault.get('a')).toBe('x');
  storage.isFull = false;
  await vault.protect(PASSPHRASE);
  expect(vault).toMatchObject({ state: 'open', problem: null });
  storage.isFull = true;
  await expect(vault.protect('another one entirely')).rejects.toThrow(/could not be saved/);
  expect(vault.state).toBe('open'); // under the words of before
  const again = await createVault(storage, () => 'site', FAST);
  expect(await again.unlock(PASSPHRASE)).toBe(true);
});

test('a secret whose writing failed is not wiped by locking: it is written first, or locking refuses with the reason', async () => {
  const storage = memoryStorage();
  const vault = await withUnkeptSecret(storage);
  expect(await vault.lock()).toBe(false);
  expect(vault).toMatchObject({ state: 'open', problem: expect.stringMatching(/1 password.*locking would lose it/) });
  expect([vault.get('a'), vault.unkept, vault.keeps('a')]).toEqual(['x', 1, false]);
  storage.isFull = false;
  expect(await vault.lock()).toBe(true);
  expect(await vault.unlock(PASSPHRASE)).toBe(true);
  expect(vault.get('a')).toBe('x');
});

test('what was forgotten in one tab is not brought back by another', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  first.set('a', 'x', BOUND);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  await second.unlock(PASSPHRASE);
  await first.forget();
  second.set('late', 'y', BOUND);
  await settled(second);
  expect(storage.kept).toBeNull();
  expect(second).toMatchObject({ state: 'memory', problem: expect.stringMatching(/deleted in another tab/) });
  expect([second.get('a'), second.get('late')]).toEqual([null, 'y']);
  const third = await createVault(storage, () => 'site', FAST);
  expect(third.state).toBe('memory');
});

test('a store that is blocked: no passphrase is called wrong that was not tried, and nothing forgotten that is still there', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  first.set('a', 'x', BOUND);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  storage.isBlocked = true;
  expect(await second.unlock(PASSPHRASE)).toBe(false);
  expect(second).toMatchObject({ state: 'locked', problem: expect.stringMatching(/could not be read/) });
  expect(await second.forget()).toBe(false);
  expect(second).toMatchObject({ state: 'locked', problem: expect.stringMatching(/nothing was deleted/) });
  storage.isBlocked = false;
  expect(await second.unlock('four grey herons walking')).toBe(false);
  expect(second.problem).not.toMatch(/could not be read/);
  expect(await second.unlock(PASSPHRASE)).toBe(true);
  expect(await second.forget()).toBe(true);
  expect(storage.kept).toBeNull();
});

test('a locked tab finds the vault forgotten, and says that instead of “damaged”', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  await first.forget();
  expect(await second.unlock(PASSPHRASE)).toBe(false);
  expect(second).toMatchObject({ state: 'memory', problem: expect.stringMatching(/deleted in another tab/) });
});

test('two tabs that write in the same moment lose nothing, twenty times over', async () => {
  const storage = memoryStorage();
  const first = await createVault(storage, () => 'site', FAST);
  await first.protect(PASSPHRASE);
  const second = await createVault(storage, () => 'site', FAST);
  await second.unlock(PASSPHRASE);
  for (let round = 0; round < 20; round++) {
    first.set(`first-${round}`, '1', BOUND);
    second.set(`second-${round}`, '2', BOUND);
    await settled(first, second);
  }
  const third = await createVault(storage, () => 'site', FAST);
  await third.unlock(PASSPHRASE);
  expect(third.size).toBe(40);
});

test('a tab that protects does not write over what another sealed meanwhile', async () => {
  const storage = memoryStorage();
  const [first, second] = [
    await createVault(storage, () => 'site', FAST),
    await createVault(storage, () => 'site', FAST),
  ];
  first.set('a', 'x', BOUND);
  await first.protect(PASSPHRASE);
  second.set('b', 'y', BOUND);
  await expect(second.protect('another one entirely')).rejects.toThrow(/another tab/);
  expect(second.state).toBe('locked');
  expect(await second.unlock(PASSPHRASE)).toBe(true);
  expect([second.get('a'), second.get('b')]).toEqual(['x', 'y']);
});

test('listeners hear that something changed', async () => {
  const vault = await createVault(memoryStorage(), () => 'site', FAST);
  const versions: number[] = [];
  const stop = vault.subscribe(() => versions.push(vault.version));
  vault.set('a', 'x', BOUND);
  vault.set('a', 'x', BOUND); // the same: nothing changed
  vault.set('a', 'y', BOUND);
  stop();
  vault.set('a', 'z', BOUND);
  expect(versions).toEqual([1, 2]);
});

test('each writing has an IV of its own, a letter typed in two ways is one, and changed bytes do not open', async () => {
  const key = await deriveKey('Mühle am Wehr', newSalt(), FAST);
  const sealed = [await sealSecrets(key, { a: 'x' }), await sealSecrets(key, { a: 'x' })] as const;
  expect(sealed[0].iv).not.toEqual(sealed[1].iv);
  expect(sealed[0].sealed).not.toEqual(sealed[1].sealed);
  const decomposed = await deriveKey('Mu\u0308hle am Wehr', key.salt, FAST);
  expect(await openSecrets(decomposed, sealed[0])).toEqual({ a: 'x' });
  for (const at of [0, sealed[0].sealed.length - 1]) {
    const changed = { ...sealed[0], sealed: sealed[0].sealed.map((byte, i) => (i === at ? byte ^ 1 : byte)) };
    expect(await openSecrets(key, changed)).toBeNull();
  }
});

// RFC 7914 §11: PBKDF2-HMAC-SHA-256 of "passwd", salt "salt", 1 round. Its first 32 bytes are the AES key; what a second
// implementation seals with that key opens here.
test('the derived key is PBKDF2 with HMAC-SHA-256', async () => {
  const bytes = Uint8Array.from(
    '55ac046e56e3089fec1691c22544b605f94185216dde0465e68b9d57c20dacbc'
      .match(/../g)
      ?.map((h) => Number.parseInt(h, 16)) ?? [],
  );
  const { createCipheriv } = await import('node:crypto');
  const iv = new Uint8Array(12).fill(7);
  const cipher = createCipheriv('aes-256-gcm', bytes, iv);
  const sealed = Uint8Array.from(
    Buffer.concat([cipher.update(JSON.stringify({ a: 'b' })), cipher.final(), cipher.getAuthTag()]),
  );
  const key = await deriveKey('passwd', new TextEncoder().encode('salt'), 1);
  const vault: SealedVault = { format: 'clear-tap/vault', version: 1, salt: key.salt, iterations: 1, iv, sealed };
  expect(await openSecrets(key, vault)).toEqual({ a: 'b' });
});
