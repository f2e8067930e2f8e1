import { Button, Input, Upload } from 'antd'
import { say } from '@/words/say'

type Props = { caption: string; onCaption(caption: string): void; onFile(file: File): void }

/** What a photo shows, and the camera or a file. */
export const PhotoAdd = ({ caption, onCaption, onFile }: Props) => (
  <div className="photo-add">
    <Input
      size="small"
      value={caption}
      maxLength={200}
      autoFocus
      aria-label={say('photo.caption')}
      placeholder={say('photo.caption')}
      onChange={(event) => onCaption(event.target.value)}
    />
    <Upload
      accept="image/*"
      capture="environment"
      showUploadList={false}
      beforeUpload={(file) => {
        onFile(file)
        return false
      }}
      data-testid="photo"
    >
      <Button size="small">{say('photo.choose')}</Button>
    </Upload>
  </div>
)
