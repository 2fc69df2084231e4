import { plainText } from '@kneecap-awl/core'

interface Props {
  /** Who the paper is about, and what it is: stands on every page. */
  readonly about: string
  /** Signed by whom and when, or that it is a draft. */
  readonly state: string
  readonly foot: string
}

/** What every printed page bears in its margins: patient, birth date and number, draft or signed, and which page of how many it is. */
export function PrintPage({ about, state, foot }: Props) {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.nonce
  return <style nonce={nonce}>{pageRule({ about, state, foot })}</style>
}

const FONT = "font: 9pt 'Atkinson Hyperlegible Next Variable', sans-serif;"

/** @example pageRule({ about: 'Odile Marsh', state: 'DRAFT', foot: 'Saltgate House' }) // '@page { … @top-left { content: "Odile Marsh"; … } … }' */
export const pageRule = ({ about, state, foot }: Props): string =>
  `@page { size: A4; margin: 20mm 15mm 18mm;
  @top-left { content: ${quoted(about)}; ${FONT} width: 58%; text-align: left; vertical-align: bottom; padding-bottom: 3mm; }
  @top-right { content: ${quoted(state)}; ${FONT} font-weight: bold; width: 42%; text-align: right; vertical-align: bottom; padding-bottom: 3mm; }
  @bottom-left { content: ${quoted(foot)}; ${FONT} text-align: left; }
  @bottom-right { content: "page " counter(page) " of " counter(pages); ${FONT} text-align: right; } }`

/** A text as CSS quotes it: nothing in a name ends the quotation or the style. */
const quoted = (text: string): string => `"${plainText(text).replaceAll(/["\\<>{}]/g, (sign) => `\\${sign.charCodeAt(0).toString(16)} `)}"`
