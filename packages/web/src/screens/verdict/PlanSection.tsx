import { useState } from 'react'
import { today, getLocalTimeZone } from '@internationalized/date'
import { againWords, REVIEW_ITEM, type Plan } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, SectionTitle, Soft } from '../../parts/controls'
import { DayField } from '../../parts/DayField'
import { dayOnly, siteZone } from '../../parts/times'
import type { Draft } from '../../record/useRecord'

interface Props {
  readonly plan: Plan
  /** Sets the day of the review; undefined where the record is closed. */
  readonly onReview: ((draft: Draft) => void) | undefined
}

/** What follows besides the referral: the day of the review, what is examined again, what is done meanwhile, and what the patient is told. */
export function PlanSection({ plan: { review, again, care, told }, onReview }: Props) {
  const isEmpty = again.length + care.length + told.length === 0
  if (isEmpty && review === undefined && !onReview) return null
  return (
    <>
      <SectionTitle>Plan</SectionTitle>
      <ul>
        {again.map((one) => (
          <li key={one.what}>{againWords(one, siteZone())}.</li>
        ))}
        {care.map(({ id, plans, support, returns, source }) => (
          <li key={id}>
            {plans} {support && `Support: ${support}.`} {returns && `Return to activity: ${returns.join(', then ')}.`} <Soft>{source}</Soft>
          </li>
        ))}
      </ul>
      {review && (
        <p data-testid="review">
          {review.isSet ? 'Review on' : 'Review proposed for'} <strong>{dayOnly(review.on)}</strong> <Soft>{review.because}</Soft>
        </p>
      )}
      {onReview && <ReviewDay key={review?.on ?? ''} review={review} onReview={onReview} />}
      {told.length > 0 && (
        <>
          <SectionTitle>Told to the patient</SectionTitle>
          {told.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </>
      )}
    </>
  )
}

/** Noon of that day, so that it is the same day wherever it is read. */
const noonOf = (day: string): string => `${day}T12:00:00.000Z`

function ReviewDay({ review, onReview }: { readonly review: Plan['review']; readonly onReview: (draft: Draft) => void }) {
  const [day, setDay] = useState(review?.on.slice(0, 10) ?? '')
  const isNew = day !== '' && !(review?.isSet && review.on.slice(0, 10) === day)
  const set = (): void => onReview({ item: REVIEW_ITEM, side: 'none', state: 'examined', value: noonOf(day), qualifiers: { precision: 'day' } })
  return (
    <Line data-screen-only>
      <DayField
        label="Review date"
        value={day}
        onChange={setDay}
        minValue={today(getLocalTimeZone())}
        says={day === '' ? 'Day, month and year.' : dayOnly(day)}
      />
      <Button isDisabled={!isNew} onPress={set}>
        Set the review date
      </Button>
    </Line>
  )
}

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 6px;
`
