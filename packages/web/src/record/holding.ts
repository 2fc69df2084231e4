const counts = new Map<string, number>()

/** How many entries of each examination that is open stand on this device: what the server tells of its own recording is no news. */
export const holding = {
  /** @returns how it ends */
  hold(examination: string, count: number): () => void {
    counts.set(examination, count)
    return () => void counts.delete(examination)
  },
  has: (examination: string, count: number): boolean => (counts.get(examination) ?? -1) >= count,
}
