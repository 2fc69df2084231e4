/** Hands the page's style nonce to styled-components and React Aria. Imported before either of them. */
const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.nonce
if (nonce) (window as unknown as { __webpack_nonce__: string }).__webpack_nonce__ = nonce
