/** What reviews a pack: for commands and tests, never for the application. */
export { lexiconProblems } from './lexicon.js'
export { lintPack, lintRegion } from './lint.js'
export { searchFlags } from './proveFlags.js'
export { packReport, type RegionReport } from './packReport.js'
export { WitnessSearch, type Witness } from './witness.js'
export { reviewDocument, type ReviewSubject } from './reviewDocument.js'
export { thresholdsCsv, thresholdsOf, type Threshold } from './thresholds.js'
