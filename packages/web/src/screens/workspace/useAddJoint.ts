import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Side } from '@kneecap-awl/core'
import { examinations } from '@kneecap-awl/contract'
import { call, ApiProblem } from '../../api/http'
import { useOneAtATime } from '../../parts/useOneAtATime'
import { sendWaiting } from '../../record/sendWaiting'

export interface Joint {
  readonly region: string
  readonly sides: readonly Side[]
  readonly sameEvent: boolean
}

/** Adds a joint to the visit and goes to it. What this device still holds is sent first, so that all of it is shared. */
export function useAddJoint(examination: string) {
  const navigate = useNavigate()
  const [fault, setFault] = useState('')
  const once = useOneAtATime()
  const add = (joint: Joint): Promise<void> =>
    once(async () => {
      setFault('')
      try {
        await sendWaiting(examination)
        const { id } = await call(examinations.addJoint, { params: { id: examination }, body: joint })
        void navigate(`/examinations/${id}`)
      } catch (error) {
        setFault(error instanceof ApiProblem ? error.message : 'No connection to the server. The joint is not added; try again.')
      }
    })
  return { add, fault, clear: () => setFault('') }
}
