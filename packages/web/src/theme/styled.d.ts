import 'styled-components'
import type { Tokens } from './tokens'

declare module 'styled-components' {
  export interface DefaultTheme extends Tokens {}
}
