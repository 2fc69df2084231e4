import { useMemo, useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { Link, useNavigate, useParams } from 'react-router'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import {
  clinicalNote,
  conditionRanges,
  counterfactuals,
  dueAt,
  itemsById,
  judgement,
  noteText,
  openItems,
  referralLetter,
  type Counterfactual,
  type Examination,
  type Pack,
} from '@kneecap-awl/core'
import styled from 'styled-components'
import { api } from '../../api/http'
import { examination, packByHash, patientById, referralsOf, session, type ExaminationDetail } from '../../api/queries'
import { Cautions } from '../../parts/Cautions'
import { Button, Input, SmallTitle, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'
import { Shell } from '../../parts/Shell'
import { ageAt, dayAndTime } from '../../parts/times'
import { LetterPane } from './LetterPane'
import { WhyChain } from './WhyChain'

export default function VerdictSheet() {
  const { id = '' } = useParams()
  const detail = useQuery(examination(id))
  const pack = useQuery(packByHash(detail.data?.packHash ?? ''))
  if (detail.isError)
    return (
      <Shell heading="Verdict">
        <p role="alert" style={{ padding: 20 }}>
          {detail.error.message}
        </p>
      </Shell>
    )
  if (!detail.data || !pack.data || detail.isFetching) return null
  return <Verdict detail={detail.data} pack={pack.data} />
}

/** After the examination: the strip, the proof as a chain, what would change it, what was not examined, the note and the letter. */
function Verdict({ detail, pack }: { readonly detail: ExaminationDetail; readonly pack: Pack }) {
  const navigate = useNavigate()
  const client = useQueryClient()
  const { data: account } = useQuery(session)
  const { data: patient } = useQuery(patientById(detail.patientId))
  const { data: made } = useQuery(referralsOf(detail.id))
  const [message, setMessage] = useState('')
  const [amending, setAmending] = useState(false)
  const [reason, setReason] = useState('')
  const exam: Examination = useMemo(
    () => ({ complaint: { region: detail.region, sides: detail.sides }, asOf: detail.startedAt, setting: detail.setting, entries: detail.entries }),
    [detail],
  )
  const judged = useMemo(() => judgement(pack, exam), [pack, exam])
  const change = useMemo(() => counterfactuals(judged), [judged])
  const open = useMemo(() => openItems(judged), [judged])
  const note = useMemo(() => clinicalNote(pack, exam, judged), [pack, exam, judged])
  const likely = useMemo(() => conditionRanges(judged, detail.setting), [judged, detail.setting])
  const { verdict } = judged
  const letter = useMemo(
    () =>
      referralLetter(pack, exam, judged, {
        patient: { name: detail.patientName, birthDate: detail.birthDate, ...(patient ? { localNumber: patient.patient.localNumber } : {}) },
        examiner: detail.signedBy ?? account?.name ?? '',
        site: account?.site ?? '',
      }),
    [pack, exam, judged, detail, patient, account],
  )
  const tier = pack.tiers.find((one) => one.id === verdict.floor)
  const due = dueAt(detail.signedAt ?? new Date().toISOString(), verdict.floor)
  const reload = (): Promise<void> => client.invalidateQueries()
  const act = async (work: () => Promise<unknown>, done: string): Promise<void> => {
    try {
      await work()
      await reload()
      setMessage(done)
    } catch (error) {
      setMessage((error as Error).message)
    }
  }
  const sign = (): Promise<void> =>
    act(
      () =>
        api('POST', `/api/examinations/${detail.id}/sign`, {
          floor: verdict.floor,
          ceiling: verdict.ceiling,
          flags: verdict.flags.map((flag) => `${flag.id}|${flag.side}|${flag.tier ?? ''}`),
        }),
      'Signed and sealed. The server reached the same verdict.',
    )
  const refer = (): Promise<void> => act(() => api('POST', `/api/examinations/${detail.id}/referrals`, {}), 'Referred. Its clock runs on the desk.')
  const referred = (made?.referrals.length ?? 0) > 0
  return (
    <Shell
      heading={
        <>
          <strong>Verdict</strong> <Link to={`/patients/${detail.patientId}`}>{detail.patientName}</Link>{' '}
          <Soft>
            {ageAt(detail.birthDate)} · {detail.sides.join(' and ')} {detail.region} · {dayAndTime(detail.startedAt)}
            {detail.verdictKind ? ` · ${detail.verdictKind}` : ' · draft'}
          </Soft>
        </>
      }
      actions={
        <>
          <Button onPress={() => void navigate(`/examinations/${detail.id}`)}>Back to the sheet</Button>
          <Button onPress={() => window.print()}>Print</Button>
          {detail.signedAt ? (
            <>
              <Button onPress={() => setAmending(true)}>Amend</Button>
              <Button $tone="copper" isDisabled={referred} onPress={() => void refer()}>
                {referred ? 'Referred' : 'Refer'}
              </Button>
            </>
          ) : (
            <Button $tone="copper" onPress={() => void sign()}>
              Sign
            </Button>
          )}
        </>
      }
    >
      <Columns>
        <Left>
          {message && <Message role="status">{message}</Message>}
          <Head>
            <PunchedStrip floor={verdict.floor} ceiling={verdict.ceiling} size="large" />
            <div>
              <Big data-testid="verdict-tier">{tierName(verdict.floor)}</Big>
              <Soft as="p" data-testid="verdict-range">
                {rangeWords(verdict.floor, verdict.ceiling)}
                {due ? ` · by ${dayAndTime(due)}` : ''}
              </Soft>
              <p>{tier?.meaning}</p>
            </div>
          </Head>
          <Title>Why</Title>
          <WhyChain pack={pack} verdict={verdict} />
          <Title>What would change it</Title>
          {[...change.raise, ...change.lower].length === 0 && <Soft as="p">No set of up to three findings would change it.</Soft>}
          <ul>
            {[...change.raise, ...change.lower].map((one, at) => (
              <Change key={at}>
                <span>{changeWords(pack, one)}</span>
                <PunchedStrip floor={one.tier} ceiling={one.tier} />
                <Soft>{tierName(one.tier)}</Soft>
              </Change>
            ))}
          </ul>
          <Title>Not examined</Title>
          <p>
            {open.length === 0
              ? 'Nothing left unexamined could change the priority.'
              : `Could still change it: ${open.map((one) => `${one.label}${one.held ? ' (on hold)' : ''}`).join('; ')}.`}
          </p>
          <Title>Do</Title>
          <ul>
            {[...new Set(verdict.flags.flatMap((flag) => flag.doNow))]
              .flatMap((id) => pack.actions.find((a) => a.id === id) ?? [])
              .map((action) => (
                <li key={action.id}>{action.text}</li>
              ))}
          </ul>
          {tier && (
            <p>
              {tier.review} {tier.safetyNet}
            </p>
          )}
          {likely.length > 0 && (
            <>
              <Title>Likely, as estimates</Title>
              <ul>
                {likely.slice(0, 5).map((one) => (
                  <li key={one.id}>
                    {one.name}: {(one.low * 100).toFixed(0)} to {(one.high * 100).toFixed(0)} %{' '}
                    <Soft>{[...new Set(one.evidence.map((e) => `${e.source}, ${e.certainty}`))].join('; ')}</Soft>
                  </li>
                ))}
              </ul>
            </>
          )}
          <Title>Note</Title>
          <Note>
            {note.map((section) => (
              <section key={section.heading}>
                <h3>{section.heading}</h3>
                {section.lines.map((line) => (
                  <p key={line}>{line}</p>
                ))}
              </section>
            ))}
          </Note>
          <Buttons data-screen-only>
            <Button onPress={() => void navigator.clipboard.writeText(noteText(note)).then(() => setMessage('The note is copied.'))}>Copy the note</Button>
            <Download href={`/api/examinations/${detail.id}/file`} download>
              Download the record
            </Download>
          </Buttons>
        </Left>
        <LetterPane letter={letter}>
          {made?.referrals.map((one) => (
            <p key={one.id}>
              <strong>{one.lastEvent}</strong> · {one.dueAt ? `due ${dayAndTime(one.dueAt)}` : 'own review'}
            </p>
          ))}
          <Cautions cautions={pack.cautions} pack={`${pack.version}, ${pack.hash}`} />
          {detail.verdict && <Soft as="p">Record sealed {detail.verdict.recordHash.slice(0, 16)}…</Soft>}
        </LetterPane>
      </Columns>
      <Dialogue title="Amend a signed examination" isOpen={amending} onClose={() => setAmending(false)}>
        <Soft>What was signed stays. What you change is added with your reason, and the verdict is reached again.</Soft>
        <TextField value={reason} onChange={setReason}>
          <Label>Reason</Label>
          <Input />
        </TextField>
        <Button
          $tone="copper"
          isDisabled={reason.trim().length < 4}
          onPress={() => void navigate(`/examinations/${detail.id}`, { state: { amends: reason.trim() } })}
        >
          Go to the sheet
        </Button>
      </Dialogue>
    </Shell>
  )
}

function changeWords(pack: Pack, one: Counterfactual): string {
  const items = itemsById(pack)
  const list = one.changes.map((change) => `${items.get(change.item)?.label ?? change.item}${change.side === 'none' ? '' : ` ${change.side}`}`).join(' and ')
  return one.direction === 'raise' ? `If abnormal: ${list} (${pack.flags.find((flag) => flag.id === one.flags[0])?.title ?? ''})` : `If normal: ${list}`
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
  min-height: 100%;
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
`
const Big = styled.h1`
  font-size: 32px;
  line-height: 1.1;
`
const Title = styled(SmallTitle)`
  margin: 20px 0 6px;
`
const Change = styled.li`
  display: grid;
  grid-template-columns: 1fr auto 52px;
  align-items: center;
  gap: 10px;
  padding: 8px 0;
  border-bottom: 1px dashed ${({ theme }) => theme.rule};
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
const Download = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: 32px;
  padding: 0 12px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
  background: ${({ theme }) => theme.sheet};
  text-decoration: none;
`
const Message = styled.p`
  margin-bottom: 12px;
  padding: 8px 12px;
  border-radius: 8px;
  background: ${({ theme }) => theme.selection};
`
