/** The parts of the chart library that are used here, and no others: it comes with the first chart that is shown. */
import { CustomChart, ScatterChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { init, use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'

use([CustomChart, ScatterChart, AriaComponent, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])

export { init }
export type { EChartsCoreOption as ChartOption, EChartsType } from 'echarts/core'
