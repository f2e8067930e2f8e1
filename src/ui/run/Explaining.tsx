import { Button, Progress } from 'antd'
import { say } from '@/words/say'

/** How far the search for causes has come, 0 to 1, and the way to end it. */
export const Explaining = ({ share, onStop }: { share: number; onStop(): void }) => (
  <div className="explaining">
    <Progress aria-label={say('side.wrong')} percent={Math.round(100 * share)} />
    <Button className="small" onClick={onStop}>
      {say('side.stop')}
    </Button>
  </div>
)
