/** Colours of the paper card and of its night version. Components name tokens, never colours. */
export interface Tokens {
  readonly name: 'light' | 'dark'
  readonly ground: string
  readonly sheet: string
  readonly wash: string
  /** Bone and shaded territory of a drawing: apart from the paper at night as well. */
  readonly bone: string
  readonly ink: string
  readonly soft: string
  readonly rule: string
  readonly copper: string
  readonly onCopper: string
  readonly copperWash: string
  readonly selection: string
  readonly leather: string
  readonly hole: string
  readonly onInk: string
}

export const LIGHT: Tokens = {
  name: 'light',
  ground: '#f4efe4',
  sheet: '#fffdf8',
  wash: '#ece4d4',
  bone: '#ece4d4',
  ink: '#17263f',
  soft: '#55617a',
  rule: '#ddd3c1',
  copper: '#a8481c',
  onCopper: '#fffdf8',
  copperWash: '#f6e3d6',
  selection: '#dfe6f2',
  leather: '#7b4f33',
  hole: '#fffdf8',
  onInk: '#fffdf8',
}
export const DARK: Tokens = {
  name: 'dark',
  ground: '#11161d',
  sheet: '#1a212b',
  wash: '#222b37',
  bone: '#37455a',
  ink: '#ece6da',
  soft: '#9aa6b8',
  rule: '#313b49',
  copper: '#e58f5d',
  onCopper: '#11161d',
  copperWash: '#3a281d',
  selection: '#26364d',
  leather: '#a9764f',
  hole: '#11161d',
  onInk: '#11161d',
}
