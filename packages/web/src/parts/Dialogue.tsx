import type { ReactNode } from 'react'
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'

/** A question that must be answered before going on. Escape closes it. */
export function Dialogue({
  title,
  isOpen,
  onClose,
  children,
}: {
  readonly title: string
  readonly isOpen: boolean
  readonly onClose: () => void
  readonly children: ReactNode
}) {
  return (
    <Veil isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Modal>
        <Box>
          <Title slot="title">{title}</Title>
          {children}
        </Box>
      </Modal>
    </Veil>
  )
}

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: rgb(10 16 26 / 45%);
  z-index: 10;
`
const Box = styled(Dialog)`
  width: min(560px, 92vw);
  max-height: 84vh;
  overflow: auto;
  padding: 20px;
  display: grid;
  gap: 14px;
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
  outline: none;
`
const Title = styled(Heading)`
  font-size: 18px;
  font-weight: 700;
`
