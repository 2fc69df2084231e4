/** Invented people of an invented harbour town. */
export interface Person {
  readonly name: string
  readonly age: number
  readonly sex: 'female' | 'male'
}

export const SITE = { name: 'Saltgate House, urgent care and general practice', zone: 'Europe/London' }

export const STAFF = [
  { signIn: 'brannock', name: 'Dr Isolde Brannock', role: 'clinician' },
  { signIn: 'quill', name: 'Dr Tobias Quill', role: 'lead' },
  { signIn: 'fenn', name: 'Marit Fenn', role: 'admin' },
  { signIn: 'lark', name: 'Joss Lark', role: 'learner' },
] as const

export const PEOPLE = {
  marsh: { name: 'Odile Marsh', age: 46, sex: 'female' },
  tarn: { name: 'Wilfred Tarn', age: 61, sex: 'male' },
  pell: { name: 'Anneke Pell', age: 23, sex: 'female' },
  stroud: { name: 'Caspian Stroud', age: 34, sex: 'male' },
  voss: { name: 'Perpetua Voss', age: 72, sex: 'female' },
  hale: { name: 'Rufus Hale', age: 13, sex: 'male' },
  ivory: { name: 'Sunniva Ivory', age: 29, sex: 'female' },
  crake: { name: 'Bartholomew Crake', age: 58, sex: 'male' },
  dunmore: { name: 'Leocadia Dunmore', age: 67, sex: 'female' },
  finch: { name: 'Ambrose Finch', age: 41, sex: 'male' },
  gale: { name: 'Thea Gale', age: 19, sex: 'female' },
  oakes: { name: 'Ignatius Oakes', age: 80, sex: 'male' },
  wray: { name: 'Philippa Wray', age: 52, sex: 'female' },
  teasel: { name: 'Corin Teasel', age: 44, sex: 'male' },
  yarrow: { name: 'Edmund Yarrow', age: 37, sex: 'male' },
  thrift: { name: 'Marigold Thrift', age: 45, sex: 'female' },
  sorrel: { name: 'Barnaby Sorrel', age: 63, sex: 'male' },
  kestrel: { name: 'Ottoline Kestrel', age: 70, sex: 'female' },
  heron: { name: 'Jasper Heron', age: 42, sex: 'male' },
  bracken: { name: 'Ida Bracken', age: 66, sex: 'female' },
  linnet: { name: 'Rowan Linnet', age: 27, sex: 'male' },
  mallow: { name: 'Beatrix Mallow', age: 50, sex: 'female' },
  osprey: { name: 'Conrad Osprey', age: 48, sex: 'male' },
  plover: { name: 'Henrietta Plover', age: 36, sex: 'female' },
  rook: { name: 'Alban Rook', age: 33, sex: 'male' },
  wren: { name: 'Pip Wren', age: 0.13, sex: 'female' },
  tansy: { name: 'Cornelius Tansy', age: 55, sex: 'male' },
} as const satisfies Record<string, Person>
