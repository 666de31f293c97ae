import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { Page, Waiting } from '../ui/Page'
import { FeedForm } from './FeedForm'

const blank: Omit<Schemas['FeedSettings'], 'colour'> = {
  title: '',
  description: '',
  author: '',
  ownerMail: '',
  category: 'Education',
  subcategory: 'How To',
  language: 'en-GB',
  explicit: false,
  link: null,
  media: 'video',
  order: 'serial',
  unlisted: true,
  private: false,
  alsoSound: false,
}

/** A feed that is to be added. */
export function NewFeed() {
  const client = useQueryClient()
  const navigate = useNavigate()
  const house = useQuery({ queryKey: ['house'], queryFn: () => taken(api.GET('/api/house')) })
  const add = async (body: Schemas['FeedSettings']) => {
    const feed = await taken(api.POST('/api/feeds', { body }))
    client.setQueryData(['feed', feed.outletId], feed)
    for (const key of [['outlets'], ['board'], ['releases']]) client.invalidateQueries({ queryKey: key })
    navigate(`/kit/feeds/${feed.outletId}`)
  }
  return (
    <Page
      title="New podcast feed"
      about="An outlet of its own: lessons are released to it as episodes. It starts unlisted, so nothing is public before you say so."
    >
      <Waiting query={house}>{house.data && <FeedForm settings={{ ...blank, colour: house.data.colour }} action="Add the feed" save={add} />}</Waiting>
    </Page>
  )
}
