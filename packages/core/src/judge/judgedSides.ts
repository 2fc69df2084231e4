import type { Side } from '../model/side.js'
import type { AnyPack } from '../pack/pack.js'
import type { Complaint } from '../record/entry.js'

/** The sides that are judged: a neck or a back has no side of its own, but its nerves have, so both are. */
export const judgedSides = (pack: AnyPack, complaint: Complaint): readonly Side[] =>
  pack.regions.find((region) => region.id === complaint.region)?.side === false ? ['right', 'left'] : complaint.sides
