import { useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { isReason } from '@kneecap-awl/core'
import { faultWords } from '../../parts/faultWords'

/**
 * A change of a patient's records that says why: once it is made, what was shown is read anew and the question closes.
 * @param withoutReason what is said where none is given
 * @param change sends it
 */
export function useChange(withoutReason: string, change: (reason: string) => Promise<unknown>, onClose: () => void) {
  const [reason, setReason] = useState('')
  const [fault, setFault] = useState('')
  const client = useQueryClient()
  const send = async (): Promise<void> => {
    if (!isReason(reason)) return setFault(withoutReason)
    try {
      await change(reason)
      await client.invalidateQueries()
      onClose()
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return { reason, setReason, fault, send: () => void send() }
}
