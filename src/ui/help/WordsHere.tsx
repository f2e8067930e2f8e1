import { Button, Descriptions } from 'antd'
import { termsIn } from './terms'
import { say } from '@/words/say'

/** The trade's words in what a step says, each with its meaning, and the way to all of them. */
export function WordsHere({ text, onAll }: { text: string; onAll(): void }) {
  const found = termsIn(text)
  return (
    <>
      <Descriptions
        column={1}
        size="small"
        layout="vertical"
        colon={false}
        items={found.map((term) => ({ key: term.id, label: <b>{term.word}</b>, children: term.means }))}
      />
      <Button className="small" onClick={onAll} data-testid="all-words">
        {say('glossary.all')}
      </Button>
    </>
  )
}
