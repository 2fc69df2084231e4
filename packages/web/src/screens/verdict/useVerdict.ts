import { useMemo, useState } from 'react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { judgement, referralLetter, shownVerdict, verdictSheetOf, type Examination, type RegionPack, type Side } from '@kneecap-awl/core'
import { examinations, referrals } from '@kneecap-awl/contract'
import { ApiProblem, call } from '../../api/http'
import { dayAndTime, dayOnly, siteZone } from '../../parts/times'
import type { Told } from './LetterPane'
import { useOneAtATime } from '../../parts/useOneAtATime'
import { recordDecision } from '../../record/recordDecision'
import type { Draft } from '../../record/useRecord'
import { useChances } from '../../reason/useChances'
import { patientById, referralsOf, session, type ExaminationDetail } from '../../api/queries'

/** Everything the verdict sheet shows, worked out from the record, and what can be done with it. */
export function useVerdict(detail: ExaminationDetail, pack: RegionPack) {
  const client = useQueryClient()
  const { data: account } = useQuery(session)
  const { data: patient } = useQuery(patientById(detail.patientId))
  const { data: made } = useQuery(referralsOf(detail.id))
  const [message, setMessage] = useState('')
  const [added, setAdded] = useState('')
  const exam: Examination = useMemo(
    () => ({
      complaint: { region: detail.region, sides: detail.sides },
      asOf: detail.startedAt,
      setting: detail.setting,
      entries: detail.entries,
      previous: detail.previous,
    }),
    [detail],
  )
  const judged = useMemo(() => judgement(pack, exam), [pack, exam])
  const view = useMemo(() => verdictSheetOf(judged, siteZone()), [judged])
  const person = useMemo(
    () => ({
      name: detail.patientName,
      birthDate: detail.birthDate,
      ...(patient ? { localNumber: patient.patient.localNumber, contact: patient.patient.contact } : {}),
    }),
    [detail.patientName, detail.birthDate, patient],
  )
  const letter = useMemo(
    () =>
      referralLetter(judged, {
        patient: person,
        examiner: detail.signedBy ?? account?.name ?? '',
        site: account?.site ?? '',
        zone: siteZone(),
        ...(added.trim() ? { added: added.trim() } : {}),
      }),
    [judged, person, detail.signedBy, account, added],
  )
  const likely = useChances(view.likely)
  const once = useOneAtATime()
  const act = (work: () => Promise<unknown>, done: string): Promise<void> =>
    once(async () => {
      try {
        await work()
        await client.invalidateQueries()
        setMessage(done)
      } catch (error) {
        setMessage((error as Error).message)
        // What the server knows and this screen does not is shown before anybody tries again.
        if (error instanceof ApiProblem && error.status === 409) await client.invalidateQueries({ queryKey: ['examination', detail.id] })
      }
    })
  const refer = (): Promise<unknown> => call(referrals.refer, { params: { id: detail.id }, body: added.trim() ? { added: added.trim() } : {} })
  /** Signs what is shown: the record as it stands on this screen, with what was decided just now. */
  const sign = async (decision: Draft | undefined): Promise<void> => {
    const decided = decision ? [await recordDecision(detail, account?.name ?? '', decision)] : []
    const shown = { ...exam, entries: [...exam.entries, ...decided] }
    const { flags, ...verdict } = shownVerdict(judgement(pack, shown))
    await call(examinations.signExamination, { params: { id: detail.id }, body: { ...verdict, flags: [...flags] } })
  }
  return {
    view,
    entryOf: (item: string, side: Side) => judged.record.finding(item, side),
    likely,
    letter,
    message,
    setMessage,
    added,
    setAdded,
    referrals: made?.referrals ?? [],
    printAbout: `${person.name}, born ${dayOnly(person.birthDate)}${patient ? `, number ${patient.patient.localNumber}` : ''}`,
    printState: detail.signedAt
      ? `Signed ${dayAndTime(detail.signedAt)}, ${detail.signedBy ?? ''}${detail.verdictKind === 'amended' ? ', amended' : ''}`
      : detail.discardedAt
        ? 'DISCARDED'
        : 'DRAFT, not signed',
    printFoot: `${account?.site ?? ''}, printed ${dayAndTime(new Date().toISOString())}`,
    setPriority: (draft: Draft) => act(() => recordDecision(detail, account?.name ?? '', draft), 'The priority is set.'),
    setReview: (draft: Draft) => act(() => recordDecision(detail, account?.name ?? '', draft), 'The review date is set.'),
    /** @param decision leaves the range open, where that has to be said first */
    sign: (decision?: Draft) => act(() => sign(decision), 'Signed and sealed. The server reached the same verdict.'),
    refer: () => act(refer, 'Referred. Its clock runs on the desk.'),
    signAndRefer: (decision?: Draft) =>
      act(async () => {
        await sign(decision)
        await refer()
      }, 'Signed, sealed and referred. Its clock runs on the desk.'),
    tell: (referral: string, kind: Told, note: string) =>
      act(
        () => call(referrals.addReferralEvent, { params: { id: referral }, body: { kind, note } }),
        kind === 'reopened' ? 'It is on the desk again.' : `Written down: ${kind}.`,
      ),
  }
}
