/** A page that is not shown paints no frame: then there is nothing to wait for. */
const LONGEST_MS = 40

/** Resolves once what was just changed has been painted, or could have been. */
export const painted = (): Promise<void> =>
  new Promise((resolve) => {
    const after = (): void => {
      const channel = new MessageChannel()
      channel.port1.onmessage = () => resolve()
      channel.port2.postMessage(undefined)
    }
    requestAnimationFrame(after)
    setTimeout(resolve, LONGEST_MS)
  })
