import { createCipheriv, createDecipheriv, createHmac, randomBytes } from 'node:crypto';

/** Seals secrets at rest with AES-256-GCM; the sealed form is nonce, tag, text. */
export class Secrets {
  /** @param key 32 bytes */
  constructor(private readonly key: Buffer) {
    if (key.length !== 32) throw new Error('the secret key must have 32 bytes');
  }

  seal(plain: string): Buffer {
    const nonce = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', this.key, nonce);
    const text = Buffer.concat([cipher.update(plain, 'utf8'), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), text]);
  }

  /** A secret for one purpose, the same whenever it is asked for; it tells nothing of the key. */
  derive(purpose: string): Buffer {
    return createHmac('sha256', this.key).update(purpose).digest();
  }

  /** @throws when the key is another one or the sealed text was touched */
  open(sealed: Buffer): string {
    const decipher = createDecipheriv('aes-256-gcm', this.key, sealed.subarray(0, 12));
    decipher.setAuthTag(sealed.subarray(12, 28));
    return Buffer.concat([decipher.update(sealed.subarray(28)), decipher.final()]).toString('utf8');
  }
}
