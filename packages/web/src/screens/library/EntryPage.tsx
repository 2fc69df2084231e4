import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import {
  rangesByReference,
  calcLines,
  ruleLines,
  type Calc,
  type Flag,
  type Item,
  type LibraryEntry,
  type RegionPack,
  type PracticeVariant,
} from '@kneecap-awl/core'
import { library, packOf } from '../../api/queries'
import { Cautions } from '../../parts/Cautions'
import { Soft, Toggle } from '../../parts/controls'
import { tierName } from '../../parts/PunchedStrip'
import { AboutCondition } from './AboutCondition'
import { AboutSource } from './AboutSource'
import { Figure, Part, ReadBy, Sources, UsedBy, type To } from './EntryParts'
import { LikelihoodPicture, NotTheChance, ratiosOf } from './LikelihoodPicture'
import { RuleTree } from './RuleTree'

interface Props {
  readonly hash: string
  readonly entry: LibraryEntry
  readonly region: string
  readonly onRegion: (region: string) => void
  readonly address: (entry: LibraryEntry) => string
}

/** One thing of the library, as one of its joints sees it. */
export function EntryPage({ hash, entry, region, onRegion, address }: Props) {
  const { data: pack } = useQuery(packOf({ packHash: hash, region }))
  const { data: index } = useQuery(library)
  const to = (kind: LibraryEntry['kind'] | 'any', id: string): string | undefined => {
    const found = index?.entries.find((one) => one.id === id && (kind === 'any' || one.kind === kind))
    return found && address({ ...found, regions: found.regions.includes(region) ? [region] : found.regions })
  }
  return (
    <article>
      <Title>{entry.label}</Title>
      {entry.kind !== 'source' && entry.regions.length > 1 && (
        <Row role="group" aria-label="Joint">
          {entry.regions.map((one) => (
            <Toggle key={one} isSelected={one === region} onChange={() => onRegion(one)}>
              {one.replaceAll('-', ' ')}
            </Toggle>
          ))}
        </Row>
      )}
      {pack && <Body pack={pack} entry={entry} to={to} entries={index?.entries ?? []} />}
      {pack && <Cautions cautions={pack.cautions} pack={pack.version} />}
    </article>
  )
}

function Body({
  pack,
  entry,
  to,
  entries,
}: {
  readonly pack: RegionPack
  readonly entry: LibraryEntry
  readonly to: To
  readonly entries: readonly LibraryEntry[]
}) {
  const bare = entry.id.split('.').slice(1).join('.')
  const own = <T extends { readonly id: string }>(things: readonly T[]): T | undefined =>
    things.find((one) => one.id === entry.id) ?? things.find((one) => one.id === `${pack.regions[0].id}.${bare}`)
  const item = own(pack.items)
  const calc = own(pack.calcs)
  const flag = own(pack.flags)
  const condition = own(pack.conditions)
  if ((entry.kind === 'test' || entry.kind === 'item') && item) return <AboutItem pack={pack} item={item} to={to} />
  if (entry.kind === 'score' && calc) return <AboutCalc pack={pack} calc={calc} to={to} />
  if (entry.kind === 'flag' && flag) return <AboutFlag pack={pack} flag={flag} to={to} />
  if (entry.kind === 'condition' && condition) return <AboutCondition pack={pack} condition={condition} />
  const variant = entry.kind === 'variant' ? pack.practiceVariants.find((one) => one.topic === entry.label) : undefined
  if (variant) return <AboutVariant variant={variant} />
  if (entry.kind === 'source') return <AboutSource pack={pack} name={entry.id} to={to} entries={entries} />
  return <Soft>This joint does not have it.</Soft>
}

function AboutVariant({ variant }: { readonly variant: PracticeVariant }) {
  const others = variant.choices.filter((choice) => choice !== variant.chosen)
  const isLocal = variant.chosen !== variant.default
  return (
    <>
      <Soft as="p">Good practitioners differ here. The program goes by one way; your own pathway comes first.</Soft>
      <Part title="Here">
        {variant.chosen}
        {isLocal && <Soft> · a local choice</Soft>}
      </Part>
      <Part title="Elsewhere">
        <ul>
          {others.map((choice) => (
            <li key={choice}>
              {choice}{' '}
              <Soft>
                {choice === variant.default ? '· the pack’s own choice' : ''}
                {variant.switches.includes(choice) ? '· changes what is shown or what the rules read, once the local profile says so' : ''}
              </Soft>
            </li>
          ))}
        </ul>
      </Part>
    </>
  )
}

function AboutItem({ pack, item, to }: { readonly pack: RegionPack; readonly item: Item; readonly to: To }) {
  const ranges = rangesByReference(item, pack.referenceRanges)
  return (
    <>
      <Soft as="p">
        {[
          item.structure,
          item.stage,
          item.position.replace('-', ' '),
          `${item.seconds} s`,
          item.burden > 1 ? `burden ${item.burden} of 3` : '',
          item.depth === 'core' ? 'core' : '',
          item.key ? `key ${item.key}` : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </Soft>
      {item.also.length > 0 && <p>Also called {item.also.join(', ')}.</p>}
      {item.lay !== undefined && <p>To the patient: {item.lay}</p>}
      {item.technique.length > 0 && (
        <Part title="How">
          <ol>
            {item.technique.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </Part>
      )}
      {item.positive && <Part title="Positive">{item.positive}</Part>}
      {item.trap && <Part title="Trap">{item.trap}</Part>}
      {item.lost.length > 0 && <Part title="Not valid when">{item.lost.join('; ')}</Part>}
      {item.options.length > 0 && item.kind !== 'sign' && <Part title="Values">{item.options.join(' · ')}</Part>}
      {item.normText && (
        <Part title="Normal range">
          {item.normText}
          {ranges.length > 0 && (
            <ul>
              {ranges.map(({ reference, range }) => (
                <li key={reference.id}>
                  {range}{' '}
                  <Soft>
                    {reference.name.toLowerCase()}: {reference.basis}
                  </Soft>
                </li>
              ))}
            </ul>
          )}
        </Part>
      )}
      {item.accuracy.length > 0 && (
        <Part title="Likelihood ratios">
          <NotTheChance figures={item.accuracy} />
          {item.accuracy.map((figure) => (
            <Figure key={`${figure.finding} ${figure.source}`}>
              <p>
                <strong>{figure.finding}</strong>
                {figure.unverified
                  ? ': the figure is not verified and is not used'
                  : [figure.sens !== undefined && ` sensitivity ${figure.sens} %`, figure.spec !== undefined && ` specificity ${figure.spec} %`]
                      .filter(Boolean)
                      .join(',')}{' '}
                <Soft>
                  <Sources source={figure.source} to={to} />, {figure.certainty}
                  {figure.checked ? '' : ', not yet checked against the paper'}
                </Soft>
              </p>
              {!figure.unverified && Object.keys(ratiosOf(figure)).length > 0 && <LikelihoodPicture finding={figure.finding} ratios={ratiosOf(figure)} />}
            </Figure>
          ))}
        </Part>
      )}
      <UsedBy pack={pack} id={item.id} to={to} />
    </>
  )
}

function AboutCalc({ pack, calc, to }: { readonly pack: RegionPack; readonly calc: Calc; readonly to: To }) {
  return (
    <>
      <Soft as="p">
        {calc.kind === 'score'
          ? 'a sum, shown as a range while parts are missing'
          : calc.kind === 'ladder'
            ? 'the first rung that holds'
            : 'holds, does not hold, or is not known'}{' '}
        · <Sources source={calc.source} to={to} />
      </Soft>
      {calc.also.length > 0 && <p>Also called {calc.also.join(', ')}.</p>}
      {calc.note && <p>{calc.note}</p>}
      <Part title="Worked out from">
        {calcLines(pack, calc).map((line, at) => (
          <RuleTree key={at} pack={pack} line={line} />
        ))}
      </Part>
      <UsedBy pack={pack} id={calc.id} to={to} />
    </>
  )
}

function AboutFlag({ pack, flag, to }: { readonly pack: RegionPack; readonly flag: Flag; readonly to: To }) {
  const place = (id: string): string => pack.destinations.find((one) => one.id === id)?.name ?? id
  const action = (id: string): string => pack.actions.find((one) => one.id === id)?.text ?? id
  return (
    <>
      <Soft as="p">
        To: {flag.to.map(place).join(', ')} · <Sources source={flag.source} to={to} />
      </Soft>
      <p>{flag.why}</p>
      {flag.lay !== undefined && <p>To the patient: {flag.lay}.</p>}
      {flag.because && <Soft as="p">In this joint: {flag.because}.</Soft>}
      {flag.clauses.map((clause, at) => (
        <Part key={at} title={`${tierName(clause.tier)} when`}>
          {clause.note && <Soft as="p">{clause.note}</Soft>}
          <RuleTree pack={pack} line={ruleLines(pack, clause.when)} />
        </Part>
      ))}
      <Part title="In play when">
        <RuleTree pack={pack} line={ruleLines(pack, flag.inPlay)} />
      </Part>
      <Part title="Excluded only by">{flag.excludedBy}</Part>
      {flag.doNow.length > 0 && (
        <Part title="Do now">
          <ul>
            {flag.doNow.map((id) => (
              <li key={id}>{action(id)}</li>
            ))}
          </ul>
        </Part>
      )}
      {flag.avoid.length > 0 && <Part title="Avoid">{flag.avoid.join(' · ')}</Part>}
      <ReadBy reviewed={flag.reviewed} />
    </>
  )
}

const Title = styled.h2`
  font-size: 20px;
  margin-bottom: 4px;
`
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 6px 0;
`
