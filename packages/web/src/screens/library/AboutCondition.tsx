import { ruleLines, type Condition, type RegionPack } from '@kneecap-awl/core'
import { Soft } from '../../parts/controls'
import { tierName } from '../../parts/PunchedStrip'
import { Figure, Part, ReadBy } from './EntryParts'
import { RuleTree } from './RuleTree'

/** A condition with how likely it is thought, what speaks for and against it, and the priority that it has by itself. */
export function AboutCondition({ pack, condition }: { readonly pack: RegionPack; readonly condition: Condition }) {
  const band = ([low, high]: readonly [number, number]): string => `${Math.round(low * 1000) / 10} to ${Math.round(high * 1000) / 10} %`
  return (
    <>
      <p>{condition.picture}</p>
      <Part title="Priority of its own">
        {tierName(condition.defaultTier)}
        {condition.tierNote ? `: ${condition.tierNote}` : ''}
      </Part>
      <Part title="Pre-test probability">
        general practice {band(condition.prior['primary-care'])}, urgent care {band(condition.prior.emergency)}
      </Part>
      {condition.presentations.length > 0 && (
        <Part title="Instead, by presentation">
          {condition.presentations.map((one) => (
            <Figure key={one.because}>
              <RuleTree pack={pack} line={ruleLines(pack, one.when)} />
              <Soft as="p">
                {one.because}: {band(one.prior)} · {one.source}
              </Soft>
            </Figure>
          ))}
        </Part>
      )}
      {condition.gate && (
        <Part title="Only when">
          <RuleTree pack={pack} line={ruleLines(pack, condition.gate)} />
        </Part>
      )}
      <Part title="Findings that change its probability">
        {condition.evidence.map((one, at) => (
          <Figure key={at}>
            <RuleTree pack={pack} line={ruleLines(pack, one.when)} />
            <Soft as="p">
              {one.lrPositive && `there: ratio ${one.lrPositive.join(' to ')}`}
              {one.lrPositive && one.lrNegative && '; '}
              {one.lrNegative && `absent: likelihood ratio ${one.lrNegative.join(' to ')}`} · {one.source}, {one.certainty} · of findings at one structure (
              {one.structure}) the strongest counts
            </Soft>
          </Figure>
        ))}
      </Part>
      <ReadBy reviewed={condition.reviewed} />
    </>
  )
}
