import { chownSync, closeSync, openSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

/** What is read again later, by threads that are started anew. */
const PROGRAM = ['./judging/worker.js', './pack.json'].map((file) => fileURLToPath(new URL(file, import.meta.url)))

/**
 * A server that was started by root, as for a port below 1024 or a key that root alone reads, goes on as a user who owns nothing.
 * @param name of the user @param own files and folders that it goes on to write
 * @returns in words who it is now; undefined where it was not started by root
 * @throws Error for a user that there is not
 */
export function goOnAs(name: string, own: readonly string[]): string | undefined {
  const { setgroups, setegid, seteuid, setgid, setuid } = process
  if (process.getuid?.() !== 0 || !setgroups || !setegid || !seteuid || !setgid || !setuid) return undefined
  const [, , uid, gid] = (readFileSync('/etc/passwd', 'utf8').match(new RegExp(`^${name}:.*$`, 'm'))?.[0] ?? '').split(':').map(Number)
  if (!uid || gid === undefined) throw new Error(`there is no user "${name}" to go on as; name another with AWL_USER`)
  setegid(gid)
  seteuid(uid)
  try {
    for (const file of PROGRAM) closeSync(openSync(file, 'r'))
  } catch (error) {
    seteuid(0)
    setegid(0)
    return `still root: "${name}" may not read the program (${(error as Error).message}). Make it readable, or start it as a user of its own`
  }
  seteuid(0)
  for (const path of own) chownSync(path, uid, gid)
  setgroups([gid])
  setgid(gid)
  setuid(uid)
  return name
}
