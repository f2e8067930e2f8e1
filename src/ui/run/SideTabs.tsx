'use client'
import { Tabs } from 'antd'
import { type ReactNode, useState } from 'react'

type Panel = { key: string; label: string; children: ReactNode }

/** What stands beside the bench as tabs, where there is no room beside. */
export function SideTabs({ panels }: { panels: Panel[] }) {
  const [panel, setPanel] = useState(panels[0]?.key ?? '')
  return <Tabs className="full-tabs" activeKey={panel} onChange={setPanel} destroyOnHidden items={panels} />
}
