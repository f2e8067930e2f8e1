import { Drawer } from 'antd'
import { say } from '@/words/say'
import { RunSheet, type RunSheetProps } from './RunSheet'

/** The run sheet on a narrow screen. */
export function SheetDrawer({ onClose, ...sheet }: RunSheetProps & { onClose(): void }) {
  return (
    <Drawer open onClose={onClose} title={say('runsheet.title')} placement="right" styles={{ body: { padding: 0 } }}>
      <RunSheet {...sheet} />
    </Drawer>
  )
}
