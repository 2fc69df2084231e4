import type { Change } from '@kneecap-awl/contract'
import pg from 'pg'

const CHANNEL = 'awl_changed'
const AGAIN_MS = 1000
/** A machine that is gone says nothing: the connection is asked so often whether it is still there. */
const LOOK_MS = 15_000

type Listener = (change: Change) => void

/**
 * Hears from the database what any server changed, and tells those who listen at that site. It has a connection of its own, straight to the database:
 * a pooler hands a connection on after each transaction, and what is told would reach somebody else.
 */
export class Changes {
  private readonly listeners = new Map<string, Set<Listener>>()
  private client: pg.Client | undefined
  private again: NodeJS.Timeout | undefined
  private look: NodeJS.Timeout | undefined
  private isStopped = false

  /** @param url as the application, past any pooler */
  constructor(
    private readonly url: string,
    private readonly log: (message: string) => void,
  ) {}

  /** @returns how it is ended */
  listen(site: string, listener: Listener): () => void {
    const here = this.listeners.get(site) ?? new Set()
    this.listeners.set(site, here.add(listener))
    return () => void here.delete(listener)
  }

  /** Begins to hear; without a database it is tried again until there is one. */
  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, connectionTimeoutMillis: 4000, query_timeout: 5000, keepAlive: true })
    this.client = client
    let isOver = false
    const lost = (why: string): void => {
      if (isOver) return
      isOver = true
      clearInterval(this.look)
      void client.end().catch(() => undefined)
      if (this.isStopped) return
      this.log(`changes are not heard (${why}); tried again`)
      this.again = setTimeout(() => void this.start(), AGAIN_MS)
    }
    client.on('error', ({ message }) => lost(message))
    client.on('end', () => lost('connection ended'))
    client.on('notification', ({ payload = '' }) => this.heard(payload))
    try {
      await client.connect()
      await client.query(`listen ${CHANNEL}`)
      this.look = setInterval(() => void client.query('select 1').catch((error: unknown) => lost((error as Error).message)), LOOK_MS)
      // What was told before nobody heard.
      for (const site of this.listeners.keys()) this.tell(site, { what: 'all' })
    } catch (error) {
      lost((error as Error).message)
    }
  }

  async stop(): Promise<void> {
    this.isStopped = true
    clearTimeout(this.again)
    clearInterval(this.look)
    await this.client?.end().catch(() => undefined)
  }

  private heard(payload: string): void {
    const { site, ...change } = JSON.parse(payload) as Change & { readonly site: string }
    this.tell(site, change)
  }

  private tell(site: string, change: Change): void {
    for (const listener of this.listeners.get(site) ?? []) listener(change)
  }
}
