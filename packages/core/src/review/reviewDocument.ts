import { calcLines, ruleLines, type RuleLine } from '../library/ruleWords.js'
import type { Condition, Flag, Pack, RegionPack, Reviewed } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import type { Calc } from '../rules/calc.js'
import { leavesOf } from '../rules/leaves.js'
import type { RuleNode } from '../rules/rule.js'

/** What a document is about: the flags and conditions of these ids, in the regions that have them. */
export interface ReviewSubject {
  readonly title: string
  readonly ids: ReadonlySet<string>
}

/**
 * Everything that some conditions say, to be read, corrected and signed by a clinician: each rule in words, the calculated values behind it,
 * figures and sources, with a place for name and date. A whole HTML page that prints well and needs nothing besides.
 */
export function reviewDocument(pack: Pack, { title, ids }: ReviewSubject): string {
  const parts = pack.regions.map(({ id }) => regionPart(viewOf(pack, id), ids)).filter((part) => part !== '')
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><style>${STYLE}</style></head>
<body><h1>${escaped(title)}</h1>
<p>Content ${escaped(pack.version)}, ${pack.hash.slice(0, 12)}. ${pack.cautions.map(escaped).join(' ')}</p>
${parts.join('\n')}
<section class="sign"><h2>Read by</h2><p>Name and role</p><p>Date</p><p>What was read, and against what</p><p>Wrong or missing</p></section>
</body></html>
`
}

function regionPart(view: RegionPack, ids: ReadonlySet<string>): string {
  const flags = view.flags.filter(({ id }) => ids.has(id))
  const conditions = view.conditions.filter(({ id }) => ids.has(id))
  if (flags.length + conditions.length === 0) return ''
  const rules = [
    ...flags.flatMap(({ inPlay, clauses }) => [inPlay, ...clauses.map(({ when }) => when)]),
    ...conditions.flatMap(({ gate, evidence }) => [...(gate ? [gate] : []), ...evidence.map(({ when }) => when)]),
  ]
  return `<section><h2>${escaped(view.regions[0].name)}</h2>
${flags.map((flag) => flagPart(view, flag)).join('\n')}
${conditions.map((condition) => conditionPart(view, condition)).join('\n')}
${calcsBehind(view, rules)
  .map((calc) => `<h4>Worked out: ${escaped(calc.label)}</h4>${listOf(calcLines(view, calc))}<p class="source">${escaped(calc.source)}</p>`)
  .join('\n')}</section>`
}

function flagPart(view: RegionPack, flag: Flag): string {
  const tier = (id: string): string => view.tiers.find((one) => one.id === id)?.name ?? id
  const action = (id: string): string => view.actions.find((one) => one.id === id)?.text ?? id
  const to = (id: string): string => view.destinations.find((one) => one.id === id)?.name ?? id
  return `<article><h3>${escaped(flag.title)} <code>${flag.id}</code></h3><p>${escaped(flag.why)}</p>
${flag.because ? `<p><b>In this joint</b> ${escaped(flag.because)}</p>` : ''}
<p><b>To</b> ${flag.to.map(to).map(escaped).join('; ')}</p>
${flag.clauses.map(({ tier: id, when, note }) => `<h4>${tier(id)}${note ? `, ${escaped(note)}` : ''}, when</h4>${listOf([ruleLines(view, when)])}`).join('\n')}
<h4>Suspected when</h4>${listOf([ruleLines(view, flag.inPlay)])}
<p><b>First</b> ${flag.doNow.map(action).map(escaped).join(' ')}</p>
<p><b>Avoid</b> ${flag.avoid.map(escaped).join('; ')}</p><p><b>Excluded only by</b> ${escaped(flag.excludedBy)}</p>
<p class="source">${escaped(flag.source)}${reviewedWords(flag.reviewed)}</p></article>`
}

function conditionPart(view: RegionPack, condition: Condition): string {
  const range = (ratio: readonly [number, number] | undefined): string => (ratio ? ratio.join(' to ') : '')
  const band = ([low, high]: readonly [number, number]): string => `${low * 100} to ${high * 100} %`
  const rows = condition.evidence.map(
    ({ when, lrPositive, lrNegative, source, certainty }) =>
      `<tr><td>${listOf([ruleLines(view, when)])}</td><td>${range(lrPositive)}</td><td>${range(lrNegative)}</td><td>${escaped(source)} (${certainty})</td></tr>`,
  )
  return `<article><h3>How likely: ${escaped(condition.name)} <code>${condition.id}</code></h3><p>${escaped(condition.picture)}</p>
<p>Before anything is examined: general practice ${band(condition.prior['primary-care'])}, urgent care ${band(condition.prior.emergency)}.</p>
${condition.gate ? `<h4>Only when</h4>${listOf([ruleLines(view, condition.gate)])}` : ''}
${rows.length > 0 ? `<table><tr><th>Finding</th><th>Ratio when present</th><th>when absent</th><th>Source</th></tr>${rows.join('')}</table>` : ''}
<p class="source">${reviewedWords(condition.reviewed).replace(/^\. /, '')}</p></article>`
}

/** Calculated values that the rules name, and those that these name in turn. */
function calcsBehind({ calcs }: RegionPack, rules: readonly RuleNode[]): readonly Calc[] {
  const found = new Set<Calc>()
  const visit = (node: RuleNode): void => {
    for (const leaf of leavesOf(node)) {
      const calc = leaf.type === 'calc' ? calcs.find(({ id }) => id === leaf.calc) : undefined
      if (!calc || found.has(calc)) continue
      found.add(calc)
      for (const rule of [calc.when, calc.validWhen, ...calc.ladder.map(({ when }) => when), ...calc.points.map(({ when }) => when)]) if (rule) visit(rule)
    }
  }
  rules.forEach(visit)
  return [...found]
}

const reviewedWords = (reviewed: Reviewed | undefined): string =>
  reviewed ? `. Read by ${escaped(reviewed.by)}, ${reviewed.on}: ${escaped(reviewed.of)}` : '. Not yet read against its sources'

const listOf = (lines: readonly RuleLine[]): string =>
  lines.length === 0 ? '' : `<ul>${lines.map(({ text, kids }) => `<li>${escaped(text)}${listOf(kids)}</li>`).join('')}</ul>`

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escaped = (text: string): string => text.replaceAll(/[&<>"]/g, (sign) => ENTITIES[sign] ?? sign)

const STYLE = `body{font:15px/1.45 system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem}h1{font-size:1.5rem}h2{border-top:2px solid;padding-top:.5rem}
h3{margin-bottom:.2rem}h4{margin:.7rem 0 .1rem}ul{margin:.1rem 0;padding-left:1.2rem}code{font-weight:400;font-size:.8em}.source{font-size:.85em}
table{border-collapse:collapse;width:100%}td,th{border:1px solid;padding:.25rem .4rem;text-align:left;vertical-align:top}.sign p{border-bottom:1px solid;height:2.2rem}
@media print{section{break-inside:auto}article{break-inside:avoid}}`
