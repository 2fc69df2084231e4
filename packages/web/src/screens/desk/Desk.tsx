import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { SearchField } from 'react-aria-components'
import styled from 'styled-components'
import { currentPack, openReferrals } from '../../api/queries'
import { Cautions } from '../../parts/Cautions'
import { Button, Card, Input, SmallTitle } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { Picker } from '../../parts/Picker'
import { Shell } from '../../parts/Shell'
import { useMinutes } from '../../parts/useMinutes'
import { ExaminationList } from './ExaminationList'
import { ReferralLine } from './ReferralLine'

const ALL = 'every joint'

/** What is on: drafts, signed examinations, and referrals with a clock, breach first. */
export function Desk() {
  const navigate = useNavigate()
  useMinutes()
  const [search, setSearch] = useState('')
  const [region, setRegion] = useState('')
  const waiting = useQuery(openReferrals)
  const { data: pack } = useQuery(currentPack)
  const regions = pack?.regions ?? []
  const about = { search: search.trim(), region }
  return (
    <Shell
      heading={<h1 style={{ fontSize: 18 }}>Desk</h1>}
      actions={
        <Button $tone="copper" onPress={() => void navigate('/start')}>
          Start an examination
        </Button>
      }
    >
      <Columns>
        <div>
          <Filter>
            <SearchField aria-label="Find an examination by patient" value={search} onChange={setSearch}>
              <Input placeholder="Find by patient or number…" />
            </SearchField>
            <Picker
              label="Joint"
              options={[ALL, ...regions.map((one) => one.name)]}
              value={regions.find((one) => one.id === region)?.name ?? ALL}
              isPlain
              onPick={(name) => setRegion(regions.find((one) => one.name === name)?.id ?? '')}
            />
          </Filter>
          <ExaminationList
            key={`draft ${about.search} ${region}`}
            {...about}
            state="draft"
            title="Drafts"
            empty="No draft is open. Start an examination when the next patient comes in."
          />
          <ExaminationList
            key={`review ${about.search} ${region}`}
            {...about}
            state="review"
            title="Reviews"
            empty="Nobody is to be seen again. A review date is set on the verdict sheet."
          />
          <ExaminationList key={`signed ${about.search} ${region}`} {...about} state="signed" title="Signed" empty="Nothing has been signed." />
        </div>
        <div>
          <Title>Referrals with a clock{waiting.data ? `, ${waiting.data.referrals.length}` : ''}</Title>
          <Card>
            <Loaded query={waiting} what="the referrals">
              {({ referrals }) => (
                <ul>
                  {referrals.map((referral) => (
                    <ReferralLine
                      key={referral.id}
                      referral={referral}
                      destination={pack?.destinations.find((d) => d.id === referral.destination)?.name ?? referral.destination}
                      callAgain={pack?.tiers.find((tier) => tier.id === referral.tier)?.callAgain}
                    />
                  ))}
                  {referrals.length === 0 && <Empty>No referral is waiting for an answer.</Empty>}
                </ul>
              )}
            </Loaded>
          </Card>
          <Foot>{pack && <Cautions cautions={pack.cautions} pack={pack.version} />}</Foot>
        </div>
      </Columns>
    </Shell>
  )
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 32px;
  max-width: 1240px;
  margin: 0 auto;
  padding: 12px 20px 32px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Filter = styled.div`
  display: flex;
  gap: 8px;
  margin-top: 12px;
  > :first-child {
    flex: 1;
  }
`
const Foot = styled.div`
  margin-top: 14px;
`
const Title = styled(SmallTitle)`
  margin: 16px 0 8px;
`
const Empty = styled.li`
  padding: 14px;
  color: ${({ theme }) => theme.soft};
`
