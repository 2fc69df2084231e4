import { ActionLine } from '../../parts/ActionLine'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { complaintWords, localChoices, noteText, type OpenItem, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { ExaminationDetail } from '../../api/queries'
import { Cautions } from '../../parts/Cautions'
import { Button, Download, SectionTitle, Soft } from '../../parts/controls'
import { NerveLevel } from '../../parts/NerveLevel'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'
import { SetPriority } from '../../parts/SetPriority'
import { Shell } from '../../parts/Shell'
import { aboutShare, chanceWords } from '../../reason/useChances'
import { NameList } from '../../parts/NameList'
import { PrintPage } from '../../parts/PrintPage'
import { Unexamined } from '../../parts/Unexamined'
import { ageAt, ageWords, dayAndTime } from '../../parts/times'
import { useExamination } from '../../parts/useExamination'
import { Changes } from './Changes'
import { Handover } from './Handover'
import { LetterPane } from './LetterPane'
import { Pathways } from './Pathways'
import { SameVisit } from './SameVisit'
import { PlatesFound } from './PlatesFound'
import { PlanSection } from './PlanSection'
import { AmendDialogue, SheetActions } from './SheetActions'
import { Scores } from './Scores'
import { Sealed } from './Sealed'
import { usePrint } from './usePrint'
import { useVerdict } from './useVerdict'
import { WhyChain } from './WhyChain'

export default function VerdictSheet() {
  const { id = '' } = useParams()
  const found = useExamination(id, 'Verdict')
  return 'opened' in found ? <Verdict {...found.opened} /> : found.waiting
}

/** After the examination: the strip, the proof as a chain, what would change it, what was not examined, the note and the letter. */
function Verdict({ detail, pack }: { readonly detail: ExaminationDetail; readonly pack: RegionPack }) {
  const sheet = useVerdict(detail, pack)
  const { view, letter, message, referrals } = sheet
  const { floor, ceiling, isSettled, isSet, priority, tier, open } = view
  const [amending, setAmending] = useState(false)
  const { printed, print } = usePrint()
  const copy = (text: string, done: string): Promise<void> =>
    navigator.clipboard.writeText(text).then(
      () => sheet.setMessage(done),
      () => sheet.setMessage('This browser does not let the page copy: select the text instead.'),
    )
  const isChild = ageAt(detail.birthDate, Date.parse(detail.startedAt)) < 16
  const isUrgent = priority.tier === 'now' || priority.tier === 'today'
  const plates = <PlatesFound pack={pack} entryOf={sheet.entryOf} />
  const seal = detail.verdict && <Sealed verdict={detail.verdict} entries={detail.entries} pack={pack} />
  // What must not be relied on says so before anything else.
  const isAltered = detail.verdict?.seal === 'altered'
  return (
    <Shell heading={<Who detail={detail} />} actions={<SheetActions detail={detail} sheet={sheet} onPrint={print} onAmend={() => setAmending(true)} />}>
      <PrintPage about={sheet.printAbout} state={sheet.printState} foot={sheet.printFoot} />
      <Columns data-print={printed}>
        <Left>
          {isAltered && seal}
          <div data-part="verdict">
            {message && (
              <Message role="status" data-screen-only>
                {message}
              </Message>
            )}
            <Head>
              <PunchedStrip floor={floor} ceiling={ceiling} size="large" />
              <div>
                <Big data-testid="verdict-tier">{isSet ? tierName(priority.tier) : rangeWords(floor, ceiling)}</Big>
                {view.setBy && <p data-testid="verdict-set">{view.setBy}.</p>}
                <Soft as="p" data-testid="verdict-range">
                  {isSettled
                    ? 'settled: nothing left unexamined could make it more urgent'
                    : `not everything that matters was examined: it could still be ${tierName(ceiling)}`}
                  {view.due ? ` · by ${dayAndTime(view.due)}` : ''}
                </Soft>
                <p>
                  {isSettled || isSet
                    ? tier?.meaning
                    : detail.signedAt
                      ? 'It was signed while it was not settled: take the more urgent way until it is.'
                      : 'Settle it, or leave it open with a reason and a plan when you sign. Until then take the more urgent way.'}
                </p>
                <SetPriority pack={pack} priority={priority} onSet={(draft) => void sheet.setPriority(draft)} />
              </div>
            </Head>
            {detail.visitWith.length > 0 && (
              <>
                <SectionTitle>Also examined in this visit</SectionTitle>
                <SameVisit floor={priority.tier} others={detail.visitWith} />
              </>
            )}
            {isUrgent && <SectionTitle>Do first</SectionTitle>}
            {isUrgent && <Handover {...view.first} />}
            <SectionTitle>Why</SectionTitle>
            <WhyChain pack={pack} flags={view.flags} unexamined={view.unexaminedCount} />
            {view.disagreements.length > 0 && <SectionTitle>Two devices do not agree</SectionTitle>}
            {view.disagreements.map((line) => (
              <p key={line} role="alert">
                {line}. Say which is right on the sheet.
              </p>
            ))}
            {view.contradictions.length > 0 && <SectionTitle>Contradictory findings</SectionTitle>}
            {view.contradictions.map((line) => (
              <p key={line} role="alert">
                {line}. The more urgent reading stands until one of them is corrected on the sheet.
              </p>
            ))}
            {view.conclusions.length > 0 && <SectionTitle>Interpretation</SectionTitle>}
            {view.conclusions.map((line) => (
              <p key={line}>{line}.</p>
            ))}
            {view.earlier.length > 0 && (
              <>
                <SectionTitle>Earlier in this examination</SectionTitle>
                <ul>
                  {view.earlier.map((line) => (
                    <li key={line}>{line}</li>
                  ))}
                </ul>
              </>
            )}
            <SectionTitle>What would change it</SectionTitle>
            <Changes pack={pack} changes={view.changes} />
            {view.flags.some((flag) => flag.retained) && (
              <Soft as="p">What is held goes by no finding: a clinician lifts it on the sheet, by name and with a reason.</Soft>
            )}
            <SectionTitle>Not examined</SectionTitle>
            <p>
              {openLead(open, isSettled)}
              {open.length > 0 && <NameList names={open.map((one) => `${one.label}${one.onHold ? ' (on hold)' : ''}`)} />}
            </p>
            <Unexamined unexamined={view.unexamined} />
            {view.acceptedBy && <p data-testid="range-accepted">{view.acceptedBy}.</p>}
            <SectionTitle>Do</SectionTitle>
            {!isUrgent && (
              <ul>
                {view.whole.actions.map((action) => (
                  <li key={action.id}>
                    <ActionLine {...action} />
                  </li>
                ))}
              </ul>
            )}
            {tier && <p>{[tier.review, tier.safetyNet, isChild ? tier.safetyNetChild : undefined].filter(Boolean).join(' ')}</p>}
            {view.advice.length > 0 && (
              <>
                <SectionTitle>Also consider</SectionTitle>
                <ul>
                  {view.advice.map(({ id, title, says }) => (
                    <li key={id}>
                      {says} <Soft>{title}</Soft>
                    </li>
                  ))}
                </ul>
              </>
            )}
            <PlanSection plan={view.plan} onReview={detail.signedAt || detail.discardedAt ? undefined : (draft) => void sheet.setReview(draft)} />
            <Pathways ways={view.pathways} />
            <NerveLevel pack={pack} {...view.nerve} />
            <Scores scores={view.scores} />
            {sheet.likely.length > 0 && (
              <>
                <SectionTitle>Differential diagnosis, estimated</SectionTitle>
                <ul>
                  {sheet.likely.slice(0, 5).map((one) => (
                    <li key={`${one.id} ${one.side}`}>
                      {one.name}
                      {one.met && `, criteria met (${tierName(one.met)})`}: {chanceWords(one)}. {aboutShare(one)}{' '}
                      <Soft>{[...new Set(one.evidence.map((e) => `${e.source}, ${e.certainty}`))].join('; ')}</Soft>
                    </li>
                  ))}
                </ul>
              </>
            )}
          </div>
          <div data-part="note">
            <SectionTitle>Note</SectionTitle>
            <Note>
              {view.note.map((section) => (
                <section key={section.heading}>
                  <h3>{section.heading}</h3>
                  {section.lines.map((line) => (
                    <p key={line}>{line}</p>
                  ))}
                </section>
              ))}
            </Note>
            {plates}
            <Buttons data-screen-only>
              <Button onPress={() => void copy(noteText(view.note), 'The note is copied.')}>Copy the note</Button>
              <Button onPress={() => print('note')}>Print the note</Button>
              <Download href={`/api/examinations/${detail.id}/file`} download>
                Download the record
              </Download>
            </Buttons>
          </div>
        </Left>
        <LetterPane
          letter={letter}
          added={sheet.added}
          onAdd={referrals.length === 0 ? sheet.setAdded : undefined}
          referrals={referrals}
          onTell={(id, kind, note) => void sheet.tell(id, kind, note)}
          onCopy={(text) => void copy(text, 'The letter is copied.')}
          onPrint={() => print('letter')}
          plates={plates}
        >
          <Cautions cautions={pack.cautions} pack={`${pack.version}, ${pack.hash}`} local={localChoices(pack.practiceVariants, detail.region).length} />
          {!isAltered && seal}
        </LetterPane>
      </Columns>
      <AmendDialogue id={detail.id} isOpen={amending} onClose={() => setAmending(false)} />
    </Shell>
  )
}

function Who({ detail }: { readonly detail: ExaminationDetail }) {
  return (
    <>
      <strong>Verdict</strong>{' '}
      <Link to={`/patients/${detail.patientId}`}>
        <bdi>{detail.patientName}</bdi>
      </Link>{' '}
      <Soft>
        {ageWords(detail.birthDate)} · {complaintWords(detail)} · {dayAndTime(detail.startedAt)} ·{' '}
        {detail.discardedAt ? 'discarded' : (detail.verdictKind ?? 'draft')}
      </Soft>
    </>
  )
}

function openLead(open: readonly OpenItem[], isSettled: boolean): string {
  if (open.length === 0) return 'Nothing left unexamined could change the priority.'
  return isSettled ? 'Open, though it would not make it more urgent: ' : 'Could still change it, the first to take first: '
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
  min-height: 100%;
  @media (max-width: 1024px) {
    grid-template-columns: minmax(0, 1fr);
  }
  @media print {
    display: block;
  }
`
const Left = styled.div`
  padding: 20px 28px 40px;
  li {
    padding: 2px 0;
  }
`
const Head = styled.div`
  display: grid;
  grid-template-columns: 280px 1fr;
  gap: 24px;
  align-items: center;
  @media (max-width: 600px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
`
const Big = styled.h1`
  font-size: 32px;
  line-height: 1.1;
`
const Note = styled.div`
  display: grid;
  gap: 8px;
  h3 {
    font-size: 14px;
  }
`
const Buttons = styled.div`
  display: flex;
  gap: 8px;
  margin-top: 14px;
`
const Message = styled.p`
  margin-bottom: 12px;
  padding: 8px 12px;
  border-radius: 8px;
  background: ${({ theme }) => theme.selection};
`
