import { start } from './startCommand'

/** Starts the application once for all journeys, on a fresh database with the demonstration; stops it afterwards. */
export default async function application(): Promise<() => Promise<void>> {
  const app = await start('journeys', ['--fresh'])
  process.env.AWL_URL = app.url
  return async () => {
    await app.stop()
  }
}
