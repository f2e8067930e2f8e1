'use client'
import '@/words/account'
import { Button, Form, Input, Modal } from 'antd'
import { useState } from 'react'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import { Said } from './Form'

const LEAST = 10
type Values = { current: string; next: string; again: string }

/** A new password for the signed-in person; every other device of theirs is signed out. */
export function PasswordDialog({ onClose }: { onClose(): void }) {
  const [message, setMessage] = useState<string | null>(null)
  const [isDone, setDone] = useState(false)
  const change = async ({ current, next }: Values): Promise<void> => {
    setMessage(null)
    try {
      await ask('/api/auth/change-password', { currentPassword: current, newPassword: next })
      setDone(true)
    } catch (error) {
      const isWrong = error instanceof Answered && error.status === 400
      setMessage(
        isWrong ? say('account.wrong') : error instanceof Answered ? error.message : say('account.needs-reception'),
      )
    }
  }
  return (
    <Modal open title={say('account.password')} onCancel={onClose} footer={null} destroyOnHidden>
      {isDone ? (
        <p role="status">{say('account.changed')}</p>
      ) : (
        <Form<Values> layout="vertical" requiredMark={false} onFinish={(values) => void change(values)}>
          <p style={{ marginBottom: 16 }}>{say('account.password-about')}</p>
          <Form.Item
            name="current"
            label={say('account.current')}
            rules={[{ required: true, message: say('account.current') }]}
          >
            <Input.Password autoComplete="current-password" autoFocus />
          </Form.Item>
          <Form.Item
            name="next"
            label={say('account.new')}
            rules={[{ min: LEAST, required: true, message: say('account.too-short') }]}
          >
            <Input.Password autoComplete="new-password" />
          </Form.Item>
          <Form.Item
            name="again"
            label={say('account.again')}
            dependencies={['next']}
            rules={[
              ({ getFieldValue }) => ({
                validator: (_, value) =>
                  value === getFieldValue('next')
                    ? Promise.resolve()
                    : Promise.reject(new Error(say('account.unlike'))),
              }),
            ]}
          >
            <Input.Password autoComplete="new-password" />
          </Form.Item>
          <Said message={message} />
          <div className="acts">
            <Button type="primary" htmlType="submit">
              {say('account.change')}
            </Button>
            <Button onClick={onClose}>{say('action.close')}</Button>
          </div>
        </Form>
      )}
    </Modal>
  )
}
