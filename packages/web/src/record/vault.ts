/** Who records on this device, and the key that goes with them. */
interface Holder {
  /** Id of the account. */
  readonly account: string
  readonly name: string
  readonly key: CryptoKey | undefined
}

/** What is kept of an entry: encrypted, or plain where the browser offers no encryption (a page that is not served safely). */
export interface Wrapped {
  readonly account: string
  readonly nonce?: Uint8Array<ArrayBuffer>
  readonly sealed?: ArrayBuffer
  readonly plain?: string
}

let holder: Holder | undefined
const LABEL = 'AES-GCM'

/** Where the browser has no encryption the page came by an unsafe way; the server is not started so. */
const subtle = (): SubtleCrypto | undefined => (globalThis.crypto as Crypto | undefined)?.subtle

/**
 * The key with which this device encrypts what waits to be sent. The server gives it to whoever signs in, always the same to the same account; it is
 * held in memory alone and cannot be read out of it, so that whoever signed out leaves nothing that can be read.
 */
export const vault = {
  /** @param deviceKey base64 of 32 bytes; null while the session is locked */
  async hold(who: { readonly id: string; readonly name: string }, deviceKey: string | null): Promise<void> {
    const bytes = deviceKey === null ? undefined : Uint8Array.from(atob(deviceKey), (sign) => sign.charCodeAt(0))
    const key = bytes && (await subtle()?.importKey('raw', bytes, LABEL, false, ['encrypt', 'decrypt']))
    holder = { account: who.id, name: who.name, key }
  },
  /** Nothing that is kept here can be read any more, until the same account signs in again. */
  forget(): void {
    holder = undefined
  },
  get holder(): Omit<Holder, 'key'> | undefined {
    return holder
  },
  async wrap(value: object): Promise<Wrapped> {
    const { account = '', key } = holder ?? {}
    const text = JSON.stringify(value)
    const crypt = subtle()
    if (!key || !crypt) return { account, plain: text }
    const nonce = globalThis.crypto.getRandomValues(new Uint8Array(12))
    return { account, nonce, sealed: await crypt.encrypt({ name: LABEL, iv: nonce }, key, new TextEncoder().encode(text)) }
  },
  /** @returns nothing where it cannot be read: of another account, or damaged */
  async unwrap({ account, nonce, sealed, plain }: Wrapped): Promise<unknown> {
    if (account !== holder?.account && account !== '') return undefined
    try {
      if (plain !== undefined) return JSON.parse(plain) as unknown
      const crypt = subtle()
      if (!crypt || !holder?.key || !nonce || !sealed) return undefined
      return JSON.parse(new TextDecoder().decode(await crypt.decrypt({ name: LABEL, iv: nonce }, holder.key, sealed))) as unknown
    } catch {
      return undefined
    }
  },
}
