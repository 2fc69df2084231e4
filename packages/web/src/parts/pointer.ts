let isDown = false
const waiting: (() => void)[] = []

const released = (): void => {
  isDown = false
  // What the release itself does (a press, a click) comes first.
  setTimeout(() => waiting.splice(0).forEach((work) => work()), 0)
}
if (typeof window !== 'undefined') {
  window.addEventListener('pointerdown', () => (isDown = true), true)
  window.addEventListener('pointerup', released, true)
  window.addEventListener('pointercancel', released, true)
}

/** Whether a finger or a button is down just now. */
export const isPointerDown = (): boolean => isDown

/** Does something once nothing is pressed any more: whatever moves the sheet must not do so between a press and its release. */
export function afterRelease(work: () => void): void {
  if (isDown) waiting.push(work)
  else work()
}
