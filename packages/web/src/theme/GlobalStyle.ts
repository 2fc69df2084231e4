import { createGlobalStyle } from 'styled-components'

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html { color-scheme: ${({ theme }) => theme.name}; }
  body { margin: 0; background: ${({ theme }) => theme.ground}; color: ${({ theme }) => theme.ink}; font: 14px/1.45 'Atkinson Hyperlegible Next Variable', system-ui, sans-serif; }
  button, input, select, textarea { font: inherit; color: inherit; }
  h1, h2, h3, p, ul, ol, dl, dd { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  a { color: inherit; }
  :focus-visible { outline: 2px solid ${({ theme }) => theme.copper}; outline-offset: 1px; }
  @media (prefers-reduced-motion: reduce) { * { transition: none !important; animation: none !important; } }
  body[data-locked] #root { visibility: hidden; }
  @media print {
    body { background: white; color: black; }
    [data-screen-only], button, input, textarea, [role='status'] { display: none !important; }
    [data-print='note'] [data-part]:not([data-part='note']), [data-print='letter'] [data-part]:not([data-part='letter']) { display: none !important; }
    h2, h3 { break-after: avoid; }
    li, tr, p { break-inside: avoid; }
  }
`
export const MONO = "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace"
